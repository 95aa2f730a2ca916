export { default as PublishPage } from './pages/PublishPage.vue';
