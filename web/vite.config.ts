import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

/** What the page fetches when it is shown is not in the first picture of a study. */
const withoutFetched: Plugin = {
  name: 'without-fetched',
  enforce: 'pre',
  resolveId: (_source, _importer, { kind }) => (kind === 'dynamic-import' ? false : null),
};

/** The program with which a server makes first pictures: `vite build --ssr`. It shares the core with the server. */
const ofServer = {
  plugins: [react(), withoutFetched],
  define: { 'process.env.NODE_ENV': '"production"' },
  ssr: { noExternal: true as const, external: ['@schritt/core', '@schritt/plot'] },
  build: {
    target: 'node20',
    // beside the files that are served, and not among them
    outDir: 'dist/.server',
    copyPublicDir: false,
  },
};

export default defineConfig(({ isSsrBuild }) =>
  isSsrBuild === true
    ? ofServer
    : {
        plugins: [react()],
        resolve: { conditions: ['@schritt/source', 'module', 'browser', 'development|production'] },
        worker: { format: 'es' as const },
        // a font inside of a style sheet is fetched by pages that show none of it, and shrinks worse
        build: {
          target: 'es2023',
          chunkSizeWarningLimit: 600,
          assetsInlineLimit: 0,
          // by which a server finds what the page of a study is made of
          manifest: true,
        },
        server: { host: '127.0.0.1', port: 4601, proxy: { '/api': 'http://127.0.0.1:4600' } },
      },
);
