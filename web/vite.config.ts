import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { compressed, woff2Only } from './compressed.ts';

export default defineConfig({
  plugins: [react(), woff2Only(), compressed()],
  resolve: { conditions: ['@schritt/source', 'module', 'browser', 'development|production'] },
  worker: { format: 'es' },
  build: { target: 'es2023', chunkSizeWarningLimit: 600 },
  server: { host: '127.0.0.1', port: 4601, proxy: { '/api': 'http://127.0.0.1:4600' } },
});
