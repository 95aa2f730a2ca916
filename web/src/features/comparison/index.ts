export { default as TellApartPage } from './pages/TellApartPage.vue';
