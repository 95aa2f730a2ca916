export { default as ChecksPage } from './pages/ChecksPage.vue';
