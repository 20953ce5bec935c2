import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  html: { cspNonce: '__CSP_NONCE__' },
  plugins: [react(), tailwindcss()],
  resolve: {
    alias: {
      '@': new URL('./src', import.meta.url).pathname,
      '@docs': new URL('../docs', import.meta.url).pathname,
      '@fonts': new URL('../src/ridge_tally/fonts', import.meta.url).pathname,
    },
  },
  build: {
    outDir: '../src/ridge_tally/static',
    emptyOutDir: true,
    target: 'es2022',
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1200,
  },
  // The glossary lies beside this folder.
  server: { proxy: { '/api': 'http://127.0.0.1:8000' }, fs: { allow: ['..'] } },
  test: {
    environment: 'jsdom',
    // One browser environment a worker, not one a file: making it took most of the run.
    isolate: false,
    setupFiles: ['src/test/setup.ts'],
    include: ['src/**/*.test.{ts,tsx}'],
    restoreMocks: true,
    // What is awaited is a state, never a speed: this only ends a run in which it never comes.
    testTimeout: 600_000,
    hookTimeout: 600_000,
    css: false,
  },
});
