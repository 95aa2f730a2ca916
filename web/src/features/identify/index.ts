export { default as StudyAnyOrderPage } from './pages/StudyAnyOrderPage.vue';
export { default as AnyOrderKey } from './components/AnyOrderKey.vue';
