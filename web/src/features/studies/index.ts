export { default as StudiesPage } from './pages/StudiesPage.vue';
