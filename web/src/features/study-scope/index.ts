export { default as ScopePage } from './pages/ScopePage.vue';
