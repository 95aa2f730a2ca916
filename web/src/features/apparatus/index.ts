export { default as ApparatusPage } from './pages/ApparatusPage.vue';
export { default as EntryList } from './components/EntryList.vue';
