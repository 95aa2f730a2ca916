export { default as SignInPage } from './pages/SignInPage.vue';
export { default as AccountPage } from './pages/AccountPage.vue';
export { default as AccountMenu } from './components/AccountMenu.vue';
