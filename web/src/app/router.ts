import { createRouter, createWebHistory } from 'vue-router';
import { guardLeaving } from '@/shared/ui/leaving';
import { useSession } from '@/stores/session';
import { stringifyQuery } from './query';

export const router = createRouter({
  history: createWebHistory(),
  stringifyQuery,
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
  routes: [
    { path: '/', redirect: '/studies' },
    { path: '/sign-in', component: () => import('@/features/account').then((m) => m.SignInPage), meta: { open: true } },
    { path: '/studies', component: () => import('@/features/studies').then((m) => m.StudiesPage) },
    { path: '/accounts', component: () => import('@/features/account').then((m) => m.AccountsPage) },
    {
      path: '/welcome',
      component: () => import('@/features/account').then((m) => m.WelcomePage),
      meta: { open: true },
    },
    { path: '/account', component: () => import('@/features/account').then((m) => m.AccountPage) },
    { path: '/import', component: () => import('@/features/import').then((m) => m.ImportPage) },
    {
      path: '/studies/:slug',
      component: () => import('@/workspace').then((m) => m.StudyFrame),
      props: true,
      children: [
        { path: '', redirect: (to) => `/studies/${String(to.params.slug)}/scope` },
        { path: 'scope', component: () => import('@/features/study-scope').then((m) => m.ScopePage) },
        { path: 'gather', component: () => import('@/features/specimens').then((m) => m.GatherPage) },
        { path: 'gather/measure', component: () => import('@/features/measuring').then((m) => m.MeasurePage) },
        { path: 'gather/table', component: () => import('@/features/specimens').then((m) => m.SpecimenTablePage) },
        { path: 'gather/map', component: () => import('@/features/specimens').then((m) => m.SpecimenMapPage) },
        { path: 'gather/sheets', component: () => import('@/features/specimens').then((m) => m.SheetsPage) },
        { path: 'gather/cells', component: () => import('@/features/measuring').then((m) => m.CellsPage) },
        { path: 'characters', component: () => import('@/features/characters').then((m) => m.CharactersPage) },
        { path: 'score', component: () => import('@/features/matrix').then((m) => m.ScorePage) },
        { path: 'apart', component: () => import('@/features/comparison').then((m) => m.TellApartPage) },
        { path: 'dangers', component: () => import('@/features/dangers').then((m) => m.DangersPage) },
        { path: 'key', component: () => import('@/features/key').then((m) => m.KeyPage) },
        { path: 'any-order', component: () => import('@/features/identify').then((m) => m.StudyAnyOrderPage) },
        { path: 'references', component: () => import('@/features/references').then((m) => m.ReferencesPage) },
        { path: 'apparatus', redirect: (to) => `/studies/${String(to.params.slug)}/references` },
        { path: 'second', component: () => import('@/features/second-scorers').then((m) => m.SecondScorersPage) },
        {
          path: 'blind/:id(\\d+)',
          component: () => import('@/features/second-scorers').then((m) => m.BlindPage),
          props: true,
        },
        { path: 'checks', component: () => import('@/features/checks').then((m) => m.ChecksPage) },
        { path: 'publish', component: () => import('@/features/publish').then((m) => m.PublishPage) },
      ],
    },
    {
      path: '/k/:slug/:number(\\d+)?',
      component: () => import('@/features/edition').then((m) => m.EditionPage),
      props: true,
      meta: { open: true },
    },
    { path: '/:rest(.*)*', redirect: '/studies' },
  ],
});

guardLeaving(router);

router.beforeEach(async (to) => {
  if (to.meta.open && to.path !== '/sign-in') return true;
  const session = useSession();
  await session.load();
  if (!session.account && !to.meta.open) return { path: '/sign-in', query: { next: to.fullPath } };
  if (session.account && to.path === '/sign-in') return '/studies';
  return true;
});
