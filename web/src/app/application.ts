import 'vuetify/styles';
import './styles.css';
import { VueQueryPlugin } from '@tanstack/vue-query';
import { createPinia } from 'pinia';
import { createApp, type Component } from 'vue';
import type { Router } from 'vue-router';
import { titleIcons } from '@/shared/ui/iconTitles';
import { i18n } from './i18n';
import { vuetify } from './theme';

/** Mounts a whole application: the workspace, or what readers see. */
export function start(root: Component, router: Router) {
  titleIcons();
  loadFonts();
  createApp(root).use(createPinia()).use(i18n).use(VueQueryPlugin).use(vuetify).use(router).mount('#app');
}

/** Words can be read before their letters are at their best: on a slow line fonts come last. */
function loadFonts() {
  const load = () =>
    Promise.all([import('@fontsource-variable/source-sans-3'), import('@fontsource-variable/source-serif-4')]);
  if (document.readyState === 'complete') void load();
  else window.addEventListener('load', () => void load(), { once: true });
}
