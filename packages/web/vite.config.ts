import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  html: { cspNonce: '__CSP_NONCE__' },
  worker: { format: 'es' },
  build: { target: 'es2022', outDir: 'dist', emptyOutDir: true, assetsInlineLimit: 0, chunkSizeWarningLimit: 900 },
  // `npm run dev` says where its server is.
  server: { proxy: { '/api': process.env['ROOF_CHART_SERVER'] ?? 'http://127.0.0.1:4310' } },
});
