import { defineConfig } from 'vite';

export default defineConfig({
  ssr: { noExternal: [/^@roof-chart\//] },
  build: { ssr: 'main.ts', outDir: 'dist', target: 'node20', emptyOutDir: true, rollupOptions: { output: { entryFileNames: 'main.mjs' } } },
});
