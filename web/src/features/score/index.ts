export { default as ScorePage } from './pages/ScorePage.vue';
