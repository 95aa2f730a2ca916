import App from './App.vue';
import { start } from './application';
import { router } from './router';

start(App, router);
