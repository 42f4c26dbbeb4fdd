import { defineConfig } from 'vite';

// One file for the server; packages from the registry stay outside, our own are bundled in.
export default defineConfig({
  ssr: { noExternal: [/^@roof-chart\//] },
  build: {
    ssr: 'src/start/main.ts',
    outDir: 'dist',
    target: 'node20',
    emptyOutDir: true,
    rollupOptions: { output: { entryFileNames: 'main.mjs' } },
  },
});
