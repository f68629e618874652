import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

const server = 'http://127.0.0.1:8420';

export default defineConfig({
  plugins: [tailwindcss(), svelte()],
  // The scene model is one library and loads by itself when the finder is first shown.
  build: { target: 'es2022', sourcemap: false, chunkSizeWarningLimit: 700 },
  server: {
    host: '127.0.0.1',
    port: 8421,
    proxy: { '/api': server, '/files': server, '/schema': server }
  }
});
