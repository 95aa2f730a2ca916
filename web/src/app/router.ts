import { createRouter, createWebHistory } from 'vue-router';
import { guardLeaving } from '@/shared/ui/leaving';
import { useSession } from '@/stores/session';
import { stringifyQuery } from './query';

export const router = createRouter({
  history: createWebHistory(),
  stringifyQuery,
  // An answer of a reader is given where they stand.
  scrollBehavior: (to, from, saved) =>
    saved ?? (to.path === from.path && to.query.seen !== from.query.seen ? false : { top: 0 }),
  routes: [
    { path: '/', redirect: '/studies' },
    {
      path: '/sign-in',
      component: () => import('@/features/account').then((m) => m.SignInPage),
      meta: { open: true, title: 'signIn.title' },
    },
    {
      path: '/studies',
      component: () => import('@/features/studies').then((m) => m.StudiesPage),
      meta: { title: 'studies.title' },
    },
    {
      path: '/accounts',
      component: () => import('@/features/account').then((m) => m.AccountsPage),
      meta: { title: 'accounts.title' },
    },
    {
      path: '/welcome',
      component: () => import('@/features/account').then((m) => m.WelcomePage),
      meta: { open: true, title: 'welcome.title' },
    },
    {
      path: '/account',
      component: () => import('@/features/account').then((m) => m.AccountPage),
      meta: { title: 'account.own' },
    },
    {
      path: '/help',
      component: () => import('@/features/help').then((m) => m.HelpPage),
      meta: { title: 'help.title' },
    },
    {
      path: '/import',
      component: () => import('@/features/import').then((m) => m.ImportPage),
      meta: { title: 'import.title' },
    },
    {
      path: '/studies/:slug',
      component: () => import('@/workspace').then((m) => m.StudyFrame),
      props: true,
      children: [
        { path: '', redirect: (to) => `/studies/${String(to.params.slug)}/scope` },
        {
          path: 'scope',
          component: () => import('@/features/study-scope').then((m) => m.ScopePage),
          meta: { title: 'stage.scope', heading: true },
        },
        {
          path: 'gather',
          component: () => import('@/features/specimens').then((m) => m.GatherPage),
          meta: { title: 'stage.gather', heading: true },
        },
        {
          path: 'gather/measure',
          component: () => import('@/features/measuring').then((m) => m.MeasurePage),
          meta: { title: 'stage.gather/measure', heading: true },
        },
        {
          path: 'gather/table',
          component: () => import('@/features/specimens').then((m) => m.SpecimenTablePage),
          meta: { title: 'gather.page.table', heading: true },
        },
        {
          path: 'gather/map',
          component: () => import('@/features/specimens').then((m) => m.SpecimenMapPage),
          meta: { title: 'gather.page.map', heading: true },
        },
        {
          path: 'gather/sheets',
          component: () => import('@/features/specimens').then((m) => m.SheetsPage),
          meta: { title: 'sheets.title', heading: true },
        },
        {
          path: 'gather/cells',
          component: () => import('@/features/measuring').then((m) => m.CellsPage),
          meta: { title: 'stage.gather/cells', heading: true },
        },
        {
          path: 'characters',
          component: () => import('@/features/characters').then((m) => m.CharactersPage),
          meta: { title: 'stage.characters', heading: true },
        },
        {
          path: 'score',
          component: () => import('@/features/matrix').then((m) => m.ScorePage),
          meta: { title: 'stage.score' },
        },
        {
          path: 'apart',
          component: () => import('@/features/comparison').then((m) => m.TellApartPage),
          meta: { title: 'stage.apart' },
        },
        {
          path: 'dangers',
          component: () => import('@/features/dangers').then((m) => m.DangersPage),
          meta: { title: 'stage.dangers', heading: true },
        },
        {
          path: 'key',
          component: () => import('@/features/key').then((m) => m.loadKeyPage()),
          meta: { title: 'stage.key' },
        },
        {
          path: 'any-order',
          component: () => import('@/features/identify').then((m) => m.loadStudyAnyOrderPage()),
          meta: { title: 'stage.any-order' },
        },
        {
          path: 'references',
          component: () => import('@/features/references').then((m) => m.ReferencesPage),
          meta: { title: 'referencesPage.title' },
        },
        { path: 'apparatus', redirect: (to) => `/studies/${String(to.params.slug)}/references` },
        {
          path: 'second',
          component: () => import('@/features/second-scorers').then((m) => m.SecondScorersPage),
          meta: { title: 'second.title' },
        },
        {
          path: 'blind/:id(\\d+)',
          component: () => import('@/features/second-scorers').then((m) => m.BlindPage),
          props: true,
          meta: { title: 'second.blindTitle' },
        },
        {
          path: 'checks',
          component: () => import('@/features/checks').then((m) => m.ChecksPage),
          meta: { title: 'checks.title' },
        },
        {
          path: 'publish',
          component: () => import('@/features/publish').then((m) => m.PublishPage),
          meta: { title: 'stage.publish', heading: true },
        },
      ],
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
