export { default as CoverPreview } from './components/CoverPreview.vue';
export { default as EditionPage } from './pages/EditionPage.vue';
