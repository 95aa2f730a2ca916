import { createPinia } from 'pinia';
import { createApp, h, nextTick, type Component, type Plugin } from 'vue';
import { createMemoryHistory, createRouter } from 'vue-router';
import { createVuetify } from 'vuetify';
import { VApp } from 'vuetify/components';
import { i18n } from '@/app/i18n';

// jsdom has no layout, so nothing scrolls.
Element.prototype.scrollIntoView = () => undefined;
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};

Object.defineProperty(globalThis, 'visualViewport', { value: new EventTarget(), configurable: true });

// What a test mounted must not hear the keys that the next one presses.
const mounted = new Set<() => void>();
export const unmountAll = () => mounted.forEach((unmount) => unmount());

/** Mounts a component with everything the application gives it, for tests; `heard` collects what it emits. */
export async function mount(
  component: Component,
  props: Record<string, unknown>,
  events: string[] = [],
  plugins: Plugin[] = [],
  path = '/',
) {
  const heard: [string, ...unknown[]][] = [];
  const listeners = Object.fromEntries(
    events.map((event) => [
      `on${event.charAt(0).toUpperCase()}${event.slice(1)}`,
      (...values: unknown[]) => heard.push([event, ...values]),
    ]),
  );
  const root = document.createElement('div');
  document.body.append(root);
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/:rest(.*)*', component: { render: () => null } }],
  });
  const app = createApp({ render: () => h(VApp, () => h(component, { ...props, ...listeners })) });
  plugins.forEach((plugin) => app.use(plugin));
  await router.replace(path);
  app.use(createPinia()).use(i18n).use(router).use(createVuetify()).mount(root);
  await router.isReady();
  await nextTick();
  const unmount = () => {
    if (mounted.delete(unmount)) app.unmount();
  };
  mounted.add(unmount);
  const all = (selector: string) => [...root.querySelectorAll<HTMLElement>(selector)];
  const byText = (selector: string, text: string) => {
    const found = all(selector).find((element) => element.textContent?.trim() === text);
    if (!found) throw new Error(`No ${selector} says "${text}" in ${root.innerHTML}`);
    return found;
  };
  return { root, router, heard, all, byText, unmount, text: () => root.textContent?.replace(/\s+/g, ' ').trim() ?? '' };
}
