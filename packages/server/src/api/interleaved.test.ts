import { randomUUID } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import type { Server } from 'node:http';
import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import { serve, type Served } from '../../tests/serve';
import { BatchEntity } from '../store/rows';

/** More with `npm run soak`. */
const EDITS_EACH = Number(process.env['ROOF_CHART_INTERLEAVED'] ?? 300);
const PINS = ['GP2', 'GP3', 'GP6', 'GP7', 'GP8', 'GP9'];

let served: Served;
let server: Server;
let base: string;
beforeAll(async () => {
  served = await serve();
  server = served.app.listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api/plans`;
});
afterAll(async () => {
  server.closeAllConnections();
  server.close();
  await served.close();
});

async function post(path: string, body: object, revision?: number) {
  const headers = { 'Content-Type': 'application/json', ...(revision ? { 'If-Match': `"${revision}-${served.store.epoch}"` } : {}) };
  const response = await fetch(base + path, { method: 'POST', headers, body: JSON.stringify(body) });
  return { status: response.status, body: (await response.json()) as { revision: number; plan: Plan } };
}

/** The n-th edit of a client: it moves its own lamp and renames it, so that every edit leaves a trace of its own. */
const edits = (client: string, n: number): Edit[] => [
  { kind: 'wire', placement: client, terminal: 'A', end: { to: 'pin', pin: PINS[n % PINS.length]! } },
  { kind: 'rename-placement', placement: client, name: `${client} ${n}` },
];

/** Sends its edits one after another, each on the revision it knows; a stale one is laid on the plan that came back. */
async function work(id: string, client: string, revision: number): Promise<number> {
  let stale = 0;
  for (let n = 1; n <= EDITS_EACH;) {
    const answer = await post(`/${id}/edits`, { batches: [{ batch: randomUUID(), edits: edits(client, n) }] }, revision);
    revision = answer.body.revision;
    if (answer.status === 200) n += 1;
    else {
      expect(answer.status).toBe(412);
      // The other client’s work is in what came back, and ours up to the last acknowledged edit.
      expect(answer.body.plan.placements.find((p) => p.id === client)!.name).toBe(n === 1 ? client : `${client} ${n - 1}`);
      stale += 1;
    }
  }
  return stale;
}

test(`${2 * EDITS_EACH} interleaved edits of two clients: each is there once, in order, and the log replays to the plan`, async () => {
  const made = await post('', { name: 'Shared', board: 'rp2040-stick-40' });
  const { id } = made.body.plan;
  const lamp = (client: string): Edit => ({
    kind: 'add-placement',
    placement: { id: client, sheet: { id: 'led-red-5mm', version: 1 }, name: client, straps: {} },
  });
  await post(`/${id}/edits`, { batches: [{ batch: randomUUID(), edits: [lamp('left'), lamp('right')] }] }, 1);
  const stale = await Promise.all([work(id, 'left', 2), work(id, 'right', 2)]);
  // Without a single collision nothing would have been shown.
  expect(stale[0]! + stale[1]!).toBeGreaterThan(EDITS_EACH / 10);

  const { plan, revision } = served.store.read(id)!;
  expect(revision).toBe(2 + 2 * EDITS_EACH);
  expect(plan.placements.map((p) => p.name).sort()).toEqual([`left ${EDITS_EACH}`, `right ${EDITS_EACH}`]);
  const log = await served.database.source.getRepository(BatchEntity).find({ where: { planId: id }, order: { revision: 'ASC' } });
  const replayed = log.reduce(
    (now, row) => (applyEdits(now, JSON.parse(row.edits) as Edit[], served.sheets) as { plan: Plan }).plan,
    made.body.plan,
  );
  expect(replayed).toEqual(plan);
  const undone = log.reduceRight(
    (now, row) => (applyEdits(now, JSON.parse(row.inverse) as Edit[], served.sheets) as { plan: Plan }).plan,
    plan,
  );
  expect(undone).toEqual(made.body.plan);
}, 1_200_000);
