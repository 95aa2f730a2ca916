import '@fontsource-variable/source-sans-3';
import '@fontsource-variable/source-serif-4';
import 'vuetify/styles';
import './styles.css';
import { VueQueryPlugin } from '@tanstack/vue-query';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './App.vue';
import { i18n } from './i18n';
import { router } from './router';
import { vuetify } from './theme';

createApp(App).use(createPinia()).use(i18n).use(VueQueryPlugin).use(vuetify).use(router).mount('#app');
