import vue from '@vitejs/plugin-vue';
import { fileURLToPath, URL } from 'node:url';
import vuetify from 'vite-plugin-vuetify';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true })],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  build: { chunkSizeWarningLimit: 900, assetsInlineLimit: 0 },
  server: { proxy: { '/api': 'http://127.0.0.1:8420' } },
  // Vuetify's first dialog of a file takes seconds on a loaded machine.
  test: {
    environment: 'jsdom',
    testTimeout: 60_000,
    setupFiles: ['src/testing/setup.ts'],
    isolate: false,
    server: { deps: { inline: ['vuetify'] } },
  },
});
