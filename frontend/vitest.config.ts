import { svelte } from '@sveltejs/vite-plugin-svelte';
import { defineConfig } from 'vitest/config';

// Geometry and formats only: what is drawn and clicked is tested in the real page.
export default defineConfig({
  plugins: [svelte()],
  test: { dir: '../tests/page', include: ['**/*.test.ts'], environment: 'node' },
  server: { fs: { allow: ['..'] } }
});
