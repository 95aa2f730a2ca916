import vue from '@vitejs/plugin-vue';
import { readFileSync } from 'node:fs';
import { fileURLToPath, URL } from 'node:url';
import type { Plugin } from 'vite';
import vuetify from 'vite-plugin-vuetify';
import { defineConfig } from 'vitest/config';

const fromHere = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/** Nothing that the cover of an edition does without stands before it: on a slow line it is read while the rest comes. */
const coverFirst: Plugin = {
  name: 'cover-first',
  transformIndexHtml: {
    order: 'post',
    handler(html, { path }) {
      if (!path.endsWith('reader.html')) return html;
      const cover = readFileSync(fromHere('./src/features/edition/cover.css'), 'utf8');
      const late: string[] = [];
      const head = html
        .replace('/* cover.css */', cover)
        .replace(
          /\s*<(?:link rel="(?:stylesheet|modulepreload)"|script type="module")[^>]*>(?:<\/script>)?/g,
          (tag) => {
            late.push(tag);
            return '';
          },
        );
      return head.replace(
        '</body>',
        `  <link rel="stylesheet" href="/assets/layers.css" />${late.join('')}\n  </body>`,
      );
    },
  },
};

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true }), coverFirst],
  resolve: { alias: { '@': fromHere('./src') } },
  build: {
    chunkSizeWarningLimit: 900,
    assetsInlineLimit: 0,
    rolldownOptions: {
      input: { index: fromHere('./index.html'), reader: fromHere('./reader.html') },
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8420', '/k': 'http://127.0.0.1:8420' } },
  // Vuetify's first dialog of a file takes seconds on a loaded machine.
  test: {
    environment: 'jsdom',
    testTimeout: 60_000,
    setupFiles: ['src/testing/setup.ts'],
    isolate: false,
    server: { deps: { inline: ['vuetify'] } },
  },
});
