export { default as GatherPage } from './pages/GatherPage.vue';
