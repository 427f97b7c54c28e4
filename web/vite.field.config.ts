/** The field helper: one script and one style, so that it can be carried as one file. */
import { svelte } from '@sveltejs/vite-plugin-svelte';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [svelte()],
  publicDir: false,
  build: {
    outDir: '../src/lyrandis/static',
    emptyOutDir: false,
    assetsInlineLimit: 0,
    cssCodeSplit: false,
    modulePreload: false,
    target: 'es2022',
    rollupOptions: { input: 'field.html' },
  },
});
