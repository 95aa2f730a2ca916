export { default as ReferencesPage } from './pages/ReferencesPage.vue';
