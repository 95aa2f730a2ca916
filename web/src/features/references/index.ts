export { default as ApparatusPage } from './pages/ApparatusPage.vue';
