import { buffer } from 'node:stream/consumers';
import { strToU8, unzipSync, zipSync } from 'fflate';
import request from 'supertest';
import { checksum } from '../store/checksum';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { editOnce, serve, type Served } from '../../tests/serve';
import { ArchiveRefused, readArchive } from './readArchive';
import { archiveEntries, zipEntries } from './writeArchive';

let served: Served;
let other: Served;
beforeEach(async () => {
  served = await serve();
  other = await serve();
});
afterEach(async () => {
  await served.close();
  await other.close();
});

const now = new Date('2026-11-26T10:00:00Z');
const board = { id: 'rp2040-stick-40', version: 1 };
const archiveOf = async ({ store, shelf }: Served) =>
  new Uint8Array(await buffer(zipEntries(archiveEntries(store.transactions.statements, shelf, now))));

/** A server with two plans, one deleted, a kept version, and an own sheet that a plan stands on. */
function fill({ store, shelf, sheets }: Served): string {
  const lamp = { ...sheets.parts.get('led-red-5mm')!.sheet, id: 'my-lamp', title: 'My lamp' } as PartSheet;
  shelf.keep([lamp]);
  const { plan } = store.createEmpty('First', board);
  const placement = { id: 'light-1', sheet: { id: 'my-lamp', version: 1 }, name: 'Lamp', straps: {} };
  editOnce(store, plan.id, 1, 'b1', [{ kind: 'add-placement', placement }]);
  store.keep(plan.id, 'With lamp');
  editOnce(store, plan.id, 2, 'b2', [{ kind: 'rename-plan', name: 'Second name' }]);
  store.remove(store.createEmpty('Deleted', board).plan.id);
  return plan.id;
}

test('everything comes out and goes in again elsewhere, the same', async () => {
  const id = fill(served);
  const archive = await archiveOf(served);
  expect(Object.keys(unzipSync(archive)).map((path) => path.replace(/[0-9a-f-]{36}/g, 'ID'))).toEqual([
    'README.txt',
    expect.stringMatching(/^(deleted-)?plans\/ID\.json$/),
    expect.stringMatching(/^(deleted-)?plans\/ID\.json$/),
    'versions/ID/ID.json',
    'sheets/my-lamp@1.json',
    'manifest.json',
  ]);
  expect(readArchive(other.store, other.shelf, archive)).toEqual({ plans: 2, versions: 1, sheets: 1, same: 0, skipped: [] });
  expect(other.store.read(id)!.plan).toEqual(served.store.read(id)!.plan);
  expect((await other.store.list(10, 0)).total).toBe(1);
  const [version] = other.store.checkpoints(id);
  expect(other.store.checkpoint(id, version!.id)!.plan).toMatchObject({ name: 'First', placements: [{ id: 'light-1' }] });
  expect(other.shelf.own).toEqual(['my-lamp']);
  // Twice is once.
  expect(readArchive(other.store, other.shelf, archive)).toEqual({ plans: 0, versions: 0, sheets: 0, same: 2, skipped: [] });
});

test('what an earlier version kept is not taken in a second time under today’s names', async () => {
  const id = fill(served);
  const archive = await archiveOf(served);
  readArchive(other.store, other.shelf, archive);
  const { connection } = other.database;
  for (const table of ['plans', 'checkpoints', 'bases'])
    for (const { rowid, document } of connection.prepare(`SELECT rowid, document FROM ${table}`).all() as {
      rowid: number;
      document: string;
    }[]) {
      const then = document.replaceAll('"valuesOnHand"', '"drawer"');
      connection.prepare(`UPDATE ${table} SET document = ?, checksum = ? WHERE rowid = ?`).run(then, checksum(then), rowid);
    }
  expect(readArchive(other.store, other.shelf, archive)).toEqual({ plans: 0, versions: 0, sheets: 0, same: 2, skipped: [] });
  expect(other.store.checkpoints(id)).toHaveLength(1);
  // A version whose document is damaged is no such version: it is left, and the sound one is kept beside it.
  connection.prepare("UPDATE checkpoints SET document = '{'").run();
  expect(readArchive(other.store, other.shelf, archive)).toMatchObject({ versions: 1, same: 2 });
});

test('an archived plan is archived elsewhere, too', async () => {
  const id = fill(served);
  served.store.archive(id, true);
  readArchive(other.store, other.shelf, await archiveOf(served));
  const { plans } = await other.store.list(10, 0);
  expect(plans.map((plan) => [plan.id, plan.archived])).toEqual([[id, true]]);
});

test('a plan that has changed meanwhile is not overwritten: the one of the archive gets an id of its own', async () => {
  const id = fill(served);
  const archive = await archiveOf(served);
  editOnce(served.store, id, 3, 'b3', [{ kind: 'rename-plan', name: 'Went on' }]);
  expect(readArchive(served.store, served.shelf, archive)).toMatchObject({ plans: 1, same: 1 });
  const { plans } = await served.store.list(10, 0);
  expect(plans.map((plan) => plan.name).sort()).toEqual(['Second name', 'Went on']);
});

test('a document that cannot be read is in the archive as it was found, and hides no other', async () => {
  const id = fill(served);
  served.database.connection.exec("UPDATE plans SET document = 'torn' WHERE deleted_at IS NULL");
  await request(served.app).get('/api/plans').expect(200);
  expect((await request(served.app).get(`/api/plans/${id}`).expect(500)).body).toMatchObject({ error: { code: 'plan-damaged' } });
  const files = unzipSync(await archiveOf(served));
  expect(new TextDecoder().decode(files[`damaged/plans-${id}.txt`])).toBe('torn');
  expect(readArchive(other.store, other.shelf, await archiveOf(served))).toMatchObject({
    plans: 1,
    skipped: [{ path: expect.stringMatching(/^versions/), fault: 'its plan was not imported' }],
  });
});

test('what is wrong in an archive is skipped and named; the rest is taken in', async () => {
  fill(served);
  const files = unzipSync(await archiveOf(served));
  files['plans/bad.json'] = strToU8('{"format":"roof-chart-plan"}');
  files['sheets/bad@1.json'] = strToU8('[]');
  files['../outside.json'] = strToU8('{}');
  const report = readArchive(other.store, other.shelf, zipSync(files));
  expect(report).toMatchObject({ plans: 2, versions: 1, sheets: 1 });
  expect(report.skipped.map((s) => s.path)).toEqual(['sheets/bad@1.json', 'plans/bad.json']);
});

test.each([
  ['Not a ZIP file', () => strToU8('hello'), 'Not a ZIP file'],
  ['a ZIP file of something else', () => zipSync({ 'a.txt': strToU8('a') }), 'the manifest is missing'],
  [
    'an archive of a later version',
    () => zipSync({ 'manifest.json': strToU8('{"format":"roof-chart-archive","formatVersion":99}') }),
    'later version',
  ],
  ['an entry that unpacks to 20 MB', () => zipSync({ 'plans/a.json': new Uint8Array(20 * 2 ** 20) }), 'too large when unpacked'],
])('%s is refused in one sentence', (_, bytes, words) => {
  let refused: unknown;
  try {
    readArchive(other.store, other.shelf, bytes());
  } catch (error) {
    refused = error;
  }
  expect(refused).toBeInstanceOf(ArchiveRefused);
  expect((refused as Error).message).toContain(words);
});

test('over HTTP: down as a file, up again', async () => {
  fill(served);
  const down = await request(served.app)
    .get('/api/archive')
    .buffer(true)
    .parse((res, done) => {
      const read = async () => done(null, await buffer(res as never));
      void read();
    })
    .expect(200)
    .expect('Content-Disposition', /roof-chart-.*\.zip/);
  const up = await request(other.app)
    .post('/api/archive')
    .set('Content-Type', 'application/zip')
    .send(down.body as Buffer);
  expect([up.status, up.body]).toEqual([201, { plans: 2, versions: 1, sheets: 1, same: 0, skipped: [] }]);
});
