import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  resolve: { conditions: ['@schritt/source', 'module', 'browser', 'development|production'] },
  worker: { format: 'es' },
  // a font inside of a style sheet is fetched by pages that show none of it, and shrinks worse
  build: { target: 'es2023', chunkSizeWarningLimit: 600, assetsInlineLimit: 0 },
  server: { host: '127.0.0.1', port: 4601, proxy: { '/api': 'http://127.0.0.1:4600' } },
});
