export { default as SignInPage } from './pages/SignInPage.vue';
export { default as AccountPage } from './pages/AccountPage.vue';
export { default as AccountMenu } from './components/AccountMenu.vue';
export { default as AccountsPage } from './pages/AccountsPage.vue';
export { default as WelcomePage } from './pages/WelcomePage.vue';
