import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import express, { type RequestHandler, Router } from 'express';

/** Files whose addresses stay the same: the browser asks each time whether they are. */
const UNHASHED = ['favicon.svg', 'icon-192.png', 'icon-512.png', 'icon-maskable-512.png', 'manifest.webmanifest', 'service-worker.js'];

/** The built application: hashed files for a year, the page itself always fresh and with this answer's nonce. */
export function webPages(folder: string): Router {
  const router = Router();
  const file = join(folder, 'index.html');
  if (!existsSync(file)) throw new Error(`The web application is not built: ${file} is missing`);
  const page = readFileSync(file, 'utf8');
  const index: RequestHandler = (_req, res) => {
    res
      .type('html')
      .set('Cache-Control', 'no-store')
      .send(page.replaceAll('__CSP_NONCE__', res.locals['nonce'] as string));
  };
  router.use('/assets', express.static(join(folder, 'assets'), { immutable: true, maxAge: '365d', fallthrough: false }));
  for (const name of UNHASHED)
    router.get(`/${name}`, (_req, res) => res.set('Cache-Control', 'no-cache').sendFile(join(folder, name), { cacheControl: false }));
  // The application has its own addresses (/plans/ID/chart); each of them is the same page.
  router.get('/{*path}', index);
  return router;
}
