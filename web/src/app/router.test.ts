import { expect, test } from 'vitest';
import { i18n } from './i18n';
import { router } from './router';

test('every page has a title of its own', () => {
  const pages = router.getRoutes().filter((r) => r.components && !r.redirect && r.path !== '/studies/:slug');
  expect(pages.length).toBeGreaterThan(20);
  const titles = pages.map((r) => r.meta.title ?? '');
  for (const title of titles) expect(i18n.global.te(title), title).toBe(true);
  expect(new Set(titles).size).toBe(titles.length);
});
