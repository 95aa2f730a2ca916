import { effectScope, nextTick, ref } from 'vue';
import { createMemoryHistory, createRouter } from 'vue-router';
import { expect, test, vi } from 'vitest';
import { asked, guardLeaving, useTyped } from './leaving';

async function pages() {
  const page = { render: () => null };
  const routes = ['/scope', '/score', '/key'].map((path) => ({ path, component: page }));
  const router = createRouter({ history: createMemoryHistory(), routes });
  guardLeaving(router);
  await router.push('/scope');
  const typed = ref(false);
  const scope = effectScope();
  scope.run(() => useTyped(() => typed.value));
  return { router, typed, scope, at: () => router.currentRoute.value.fullPath };
}

/** Whether the browser would ask before it closes the window. */
function asksToClose() {
  const event = new Event('beforeunload', { cancelable: true });
  window.dispatchEvent(event);
  return event.defaultPrevented;
}

test('leaving asks while something is typed, and goes on once it may be lost', async () => {
  const { router, typed, scope, at } = await pages();
  await router.push('/score');
  expect(at()).toBe('/score');
  expect(asksToClose()).toBe(false);
  typed.value = true;
  await nextTick();
  expect(asksToClose()).toBe(true);

  await router.push('/score?row=bane');
  expect(at()).toBe('/score?row=bane');
  const stays = router.push('/key');
  await vi.waitFor(() => expect(asked.value).not.toBeNull());
  asked.value?.(false);
  await stays;
  expect(at()).toBe('/score?row=bane');

  const goes = router.push('/key');
  await vi.waitFor(() => expect(asked.value).not.toBeNull());
  asked.value?.(true);
  await goes;
  expect(at()).toBe('/key');
  scope.stop();
  await router.push('/scope');
  expect(at()).toBe('/scope');
  expect(asksToClose()).toBe(false);
});
