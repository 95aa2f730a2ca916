export { default as DangersPage } from './pages/DangersPage.vue';
