export { default as HelpPage } from './pages/HelpPage.vue';
