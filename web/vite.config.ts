import { fileURLToPath } from 'node:url';
import { constants } from 'node:zlib';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { compression, defineAlgorithm } from 'vite-plugin-compression2';
import { VitePWA } from 'vite-plugin-pwa';
import { validatorsPlugin } from './validatorsPlugin.ts';

/** How small files are packed: as small as can be, but for tests and the demo. */
const QUALITY = process.env['LIGHTLY_PACKED'] ? 9 : 11;

/** None of ours is larger; what would be is not kept, and not there without a network. */
const LARGEST_FILE = 4 * 2 ** 20;

const WHOLE = 'react|scheduler|prop-types|classnames|use-sync-external-store|swr|dequal';
const WORDS = '/core/words/say\\.ts|/web/words/(language|locale)\\.ts|/web/store/stored\\.ts';
const SHARED = `virtual:fits/error|/ui/lazyAgain\\.ts|${WORDS}`;
const BASE = new RegExp(`node_modules/((${WHOLE})/|react-bootstrap/\\w+/(Button|ThemeProvider)\\.)|${SHARED}`);
/** What a child’s device begins with. */
const SEAT = /\/web\/room\/(roomApi|keptTakes|keptList|useSpokenIn|pictures|useSeat|watchStream)\./;
/** Signs are drawn by a few modules; with those of a child’s device they come in one piece. */
const SIGNS =
  /lucide-react\/dist\/esm\/(createLucideIcon|Icon|context|defaultAttributes|shared|icons\/(delete|arrow-left|volume-2)\.)/;
/** What the door is made of, and every page behind it uses too. */
const OF_API = '/web/api/(client|network|useGet|useSave|useRefresh|session|canUsePasskeys)\\.ts';
const DOOR = new RegExp(`${OF_API}|/web/ui/(Notice|TextField|rich)\\.tsx|/web/app/(Broken|installed)\\.tsx?`);

const page = (name: string) => fileURLToPath(new URL(name, import.meta.url));

export default defineConfig({
  root: fileURLToPath(new URL('.', import.meta.url)),
  plugins: [
    react(),
    validatorsPlugin(),
    // All files of the app on the device after the first visit: it opens without a network.
    VitePWA({
      injectRegister: false,
      // A new version waits until the page says that nothing would be lost: web/app/installed.ts.
      registerType: 'prompt',
      // In web/public: the page asks for it when there is time.
      manifest: false,
      workbox: {
        globPatterns: ['**/*.{js,mjs,css,html,svg,woff2,woff,flac,otf,ttf,json,wasm,webmanifest}'],
        // Long, and hardly ever asked for.
        globIgnores: ['licences.json'],
        maximumFileSizeToCacheInBytes: LARGEST_FILE,
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/(api|healthz|livez|metrics|join|home)(\/|$)/],
        // From the first visit on, so that one visit is enough.
        clientsClaim: true,
        inlineWorkboxRuntime: true,
        sourcemap: false,
      },
    }),
    // Beside each file of text: what is sent to a browser that takes it.
    compression({
      include: /\.(m?js|css|html|svg|json)$/,
      algorithms: [
        defineAlgorithm('brotliCompress', { params: { [constants.BROTLI_PARAM_QUALITY]: QUALITY } }),
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
    // What every page begins with comes in one piece: each of many small ones would cost as much again to ask for.
    rolldownOptions: {
      input: { index: page('index.html'), join: page('join.html') },
      output: {
        codeSplitting: {
          groups: [
            { name: 'base', test: BASE },
            { name: 'door', test: DOOR },
            { name: 'signs', test: SIGNS },
            { name: 'seat', test: SEAT },
          ],
        },
      },
    },
  },
  // The pages' own folder of the same name is none of the server's.
  server: { proxy: { '^/api/(?!.*\\.tsx?(\\?|$))': process.env['API_URL'] ?? 'http://127.0.0.1:4180' } },
  css: {
    preprocessorOptions: {
      scss: { quietDeps: true, silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'] },
    },
  },
});
