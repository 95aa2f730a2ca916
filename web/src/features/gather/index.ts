export { default as GatherPage } from './pages/GatherPage.vue';
export { default as SheetsPage } from './pages/SheetsPage.vue';
