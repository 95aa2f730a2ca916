export { default as ImportPage } from './pages/ImportPage.vue';
