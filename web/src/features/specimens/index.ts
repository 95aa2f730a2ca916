export { default as GatherPage } from './pages/GatherPage.vue';
export { default as SheetsPage } from './pages/SheetsPage.vue';
export { default as GatherTabs } from './components/GatherTabs.vue';
export { default as SpecimenTablePage } from './pages/SpecimenTablePage.vue';
export { default as SpecimenMapPage } from './pages/SpecimenMapPage.vue';
