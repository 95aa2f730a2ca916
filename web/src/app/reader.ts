import { createRouter, createWebHistory, type RouteLocation } from 'vue-router';
import { EditionPage } from '@/features/edition';
import { start } from './application';
import ReaderApp from './ReaderApp.vue';
import { stringifyQuery } from './query';

/** Answers and steps are taken where somebody stands. */
const isSamePage = (to: RouteLocation, from: RouteLocation) =>
  to.path === from.path && ['view', 'taxon', 'key', 'read'].every((part) => to.query[part] === from.query[part]);

/** What readers load: editions, and nothing that authors work with. */
const router = createRouter({
  history: createWebHistory(),
  stringifyQuery,
  // Whoever takes a step in a key is shown the next question, not the head of the page.
  scrollBehavior: (to, from, saved) => saved ?? (isSamePage(to, from) ? false : { top: 0 }),
  routes: [
    { path: '/k/:slug/:number(\\d+)?', component: EditionPage, props: true },
    { path: '/:rest(.*)*', component: EditionPage, props: { slug: '' } },
  ],
});

/** What an address asks for comes with the first scripts, not after them. */
const LOADED: Record<string, () => Promise<unknown>> = {
  'any-order': () => import('@/features/identify'),
  handful: () => import('@/features/identify').then((m) => m.loadHandfulKey()),
  key: () => import('@/features/reading'),
  check: () => import('@/features/reading'),
};
void LOADED[new URLSearchParams(location.search).get('view') ?? '']?.();

start(ReaderApp, router);
