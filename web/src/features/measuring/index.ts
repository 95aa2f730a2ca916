export { default as MeasurePage } from './pages/MeasurePage.vue';
export { default as CellsPage } from './pages/CellsPage.vue';
