import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import request from 'supertest';
import { serve, type Served } from '../../tests/serve';
import { webPages } from './pages';

const folder = mkdtempSync(join(tmpdir(), 'roof-chart-web-'));
let served: Served;
beforeAll(async () => {
  mkdirSync(join(folder, 'assets'));
  writeFileSync(join(folder, 'index.html'), '<script nonce="__CSP_NONCE__"></script><meta content="__CSP_NONCE__">');
  writeFileSync(join(folder, 'assets/app-1a2b.js'), 'export {};');
  writeFileSync(join(folder, 'manifest.webmanifest'), '{}');
  writeFileSync(join(folder, 'service-worker.js'), '');
  writeFileSync(join(folder, 'favicon.svg'), '<svg xmlns="http://www.w3.org/2000/svg"/>');
  served = await serve({ webFolder: folder });
});
afterAll(async () => {
  await served.close();
  rmSync(folder, { recursive: true, force: true });
});

const get = (path: string) => request(served.app).get(path);

test('every address of the application is the page, with this answer’s nonce and never from a cache', async () => {
  const nonces = new Set<string>();
  for (const path of ['/', '/plans/a/chart?finding=x', '/anything/at/all']) {
    const { text, headers } = await get(path).expect(200).expect('Content-Type', /html/).expect('Cache-Control', 'no-store');
    const [, nonce] = /nonce="([^"]+)"/.exec(text)!;
    expect(text).toBe(`<script nonce="${nonce}"></script><meta content="${nonce}">`);
    expect(headers['content-security-policy']).toContain(`'nonce-${nonce}'`);
    nonces.add(nonce!);
  }
  expect(nonces.size).toBe(3);
});

test('built files may be kept for a year; one that is not there is told as such, not answered with the page', async () => {
  await get('/assets/app-1a2b.js').expect(200).expect('Cache-Control', 'public, max-age=31536000, immutable');
  expect((await get('/assets/app-gone.js').expect(404)).body).toMatchObject({ error: { code: 'no-such-route' } });
  await get('/assets/..%2findex.html').expect(404);
  await get('/favicon.svg').expect(200).expect('Content-Type', /svg/);
  await get('/manifest.webmanifest')
    .expect(200)
    .expect('Content-Type', /manifest\+json/)
    .expect('Cache-Control', 'no-cache');
  await get('/service-worker.js')
    .expect(200)
    .expect('Content-Type', /javascript/)
    .expect('Cache-Control', 'no-cache');
  expect(served.logged).toEqual([]);
});

test('an application that is not built is a plain error', () => {
  expect(() => webPages(join(folder, 'nowhere'))).toThrow('The web application is not built');
});
