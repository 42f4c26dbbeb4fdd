import { createHash } from 'node:crypto';
import { join } from 'node:path';
import react from '@vitejs/plugin-react';
import { build, defineConfig, type Plugin, type Rolldown } from 'vite';

const SOURCES = join(import.meta.dirname, 'src');
const ENTRY = join(SOURCES, 'main.tsx');
const isLibrary = (module: string) => module.includes('node_modules');

/** Whether the first picture needs a module of ours: the entry reaches it without `import()`. */
const firstModules = new Set<string>();
function isFirst(module: string, context: Rolldown.ChunkingContext): boolean {
  if (firstModules.size === 0) {
    const open = [ENTRY];
    for (let next = open.pop(); next !== undefined; next = open.pop()) {
      if (isLibrary(next) || firstModules.has(next)) continue;
      firstModules.add(next);
      open.push(...(context.getModuleInfo(next)?.importedIds ?? []));
    }
  }
  return firstModules.has(module);
}

/** What several parts share comes in few files, because each costs a request: what is needed first, and what can come after it. */
const groups: Rolldown.CodeSplittingGroup[] = [
  {
    name: 'libraries',
    test: /node_modules[\\/](react|@mantine|@floating-ui|@reduxjs|immer|reselect|scheduler|use-|redux|clsx|@standard-schema)/,
    priority: 5,
  },
  { debugName: 'first', name: (module, context) => (isFirst(module, context) ? 'first' : null), priority: 4 },
  { name: 'schemas', test: /node_modules[\\/](joi|@hapi)[\\/]/, priority: 3 },
  { name: 'charts', test: /node_modules[\\/](recharts|d3-|victory-vendor|decimal|es-toolkit|fast-equals)/, priority: 2 },
  { name: 'shared', minShareCount: 2 },
];

/** What a browser keeps to start without the server: all built files but those for browsers that have newer ones (fonts as woff). */
function builtFiles(bundle: Rolldown.OutputBundle): { readonly url: string; readonly revision: string | null }[] {
  const files = Object.keys(bundle).filter((file) => file.startsWith('assets/') && !file.endsWith('.woff'));
  const page = createHash('sha256').update(files.toSorted().join()).digest('hex').slice(0, 16);
  const unhashed = ['/', '/favicon.svg', '/manifest.webmanifest'].map((url) => ({ url, revision: page }));
  return [...unhashed, ...files.map((file) => ({ url: `/${file}`, revision: null }))];
}

/** Builds the service worker after the page, because it lists the files of the page. */
const serviceWorker = (): Plugin => ({
  name: 'service-worker',
  apply: 'build',
  async writeBundle({ dir }, bundle) {
    if (dir === undefined) throw new Error('No folder to write to');
    await build({
      configFile: false,
      publicDir: false,
      logLevel: 'warn',
      define: { BUILT_FILES: JSON.stringify(builtFiles(bundle)), 'process.env.NODE_ENV': '"production"' },
      build: {
        target: 'es2022',
        outDir: dir,
        emptyOutDir: false,
        lib: {
          entry: join(SOURCES, 'workers/serviceWorker.ts'),
          formats: ['iife'],
          name: 'serviceWorker',
          fileName: () => 'service-worker.js',
        },
      },
    });
  },
});

export default defineConfig({
  plugins: [react(), serviceWorker()],
  html: { cspNonce: '__CSP_NONCE__' },
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    outDir: 'dist',
    emptyOutDir: true,
    assetsInlineLimit: 0,
    cssCodeSplit: false,
    chunkSizeWarningLimit: 900,
    rolldownOptions: { output: { codeSplitting: { groups } } },
  },
  // `npm run dev` says where its server is.
  server: { proxy: { '/api': process.env['ROOF_CHART_SERVER'] ?? 'http://127.0.0.1:4310' } },
});
