import { fileURLToPath } from 'node:url';
import { constants } from 'node:zlib';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { compression, defineAlgorithm } from 'vite-plugin-compression2';
import { validatorsPlugin } from './validatorsPlugin.ts';

export default defineConfig({
  root: fileURLToPath(new URL('.', import.meta.url)),
  plugins: [
    react(),
    validatorsPlugin(),
    // Beside each file of text: what is sent to a browser that takes it.
    compression({
      include: /\.(m?js|css|html|svg|json)$/,
      algorithms: [
        defineAlgorithm('brotliCompress', { params: { [constants.BROTLI_PARAM_QUALITY]: 11 } }),
        defineAlgorithm('gzip', { level: 9 }),
      ],
    }),
  ],
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    target: 'es2022',
    // For tests that tell which lines were run; they are moved away from what is served.
    sourcemap: 'hidden',
    assetsInlineLimit: 0,
    // Every browser that reads this build loads modules ahead by itself.
    modulePreload: { polyfill: false },
    chunkSizeWarningLimit: 700,
  },
  server: { proxy: { '/api': process.env['API_URL'] ?? 'http://127.0.0.1:4180' } },
  css: {
    preprocessorOptions: {
      scss: { quietDeps: true, silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'] },
    },
  },
});
