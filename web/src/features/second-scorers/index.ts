export { default as SecondScorersPage } from './pages/SecondScorersPage.vue';
export { default as BlindPage } from './pages/BlindPage.vue';
