export { default as CharactersPage } from './pages/CharactersPage.vue';
