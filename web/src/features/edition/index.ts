export { default as EditionPage } from './pages/EditionPage.vue';
