export { default as KeyPage } from './pages/KeyPage.vue';
export { default as PrintedKey } from './components/PrintedKey.vue';
