import { createRouter, createWebHistory } from 'vue-router';
import { EditionPage } from '@/features/edition';
import { start } from './application';
import ReaderApp from './ReaderApp.vue';
import { stringifyQuery } from './query';

/** What readers load: editions, and nothing that authors work with. */
const router = createRouter({
  history: createWebHistory(),
  stringifyQuery,
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
  routes: [
    { path: '/k/:slug/:number(\\d+)?', component: EditionPage, props: true },
    { path: '/:rest(.*)*', component: EditionPage, props: { slug: '' } },
  ],
});

start(ReaderApp, router);
