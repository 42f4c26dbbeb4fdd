// node e2e/killTest.mjs --kills N [--seed S]: kills the real server (kill -9) at random moments while two clients
// edit, starts it again, and asks whether every acknowledged edit is there and nothing is half applied.
import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const { values } = parseArgs({
  options: { kills: { type: 'string', default: '200' }, seed: { type: 'string', default: String(Date.now() % 1e6) } },
});
const kills = Number(values.kills);

/** Small seeded generator (mulberry32), so that a failure can be run again. */
function randomFrom(seed) {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
const random = randomFrom(Number(values.seed));

const port = await new Promise((resolve) => {
  const probe = createServer().listen(0, '127.0.0.1', () => {
    const found = probe.address().port;
    probe.close(() => resolve(found));
  });
});
const base = `http://127.0.0.1:${port}/api`;
const data = mkdtempSync(join(tmpdir(), 'roof-chart-kill-'));

function startServer() {
  const child = spawn(process.execPath, [join(root, 'packages/server/dist/main.mjs'), '--port', String(port), '--data', data], {
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  const ended = new Promise((resolve) => child.once('exit', resolve));
  const ready = new Promise((resolve, reject) => {
    let said = '';
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (chunk) => (said += chunk).includes('Roof Chart is at') && resolve());
    void ended.then(() => reject(new Error(`the server did not start: ${said}`)));
  });
  return { child, ready, ended };
}

const call = async (method, path, body, revision) => {
  const headers = { 'Content-Type': 'application/json', ...(revision ? { 'If-Match': `"${revision}"` } : {}) };
  const response = await fetch(base + path, { method, headers, body: body && JSON.stringify(body) });
  return { status: response.status, body: await response.json() };
};

/** A client of one plan: each edit is a pair that must be there together or not at all. */
class Client {
  acknowledged = [];
  /** Batch ids, with the counter each wrote, in the order they were sent. */
  sent = [];
  revision = 1;
  count = 0;

  async open(name) {
    this.id = (await call('POST', '/plans', { name, board: 'rp2040-stick-40' })).body.plan.id;
  }

  async editUntilKilled() {
    for (;;) {
      const n = this.count + 1;
      const batch = randomUUID();
      const id = `part-${n}`;
      this.sent.push({ batch, n });
      const edits = [
        { kind: 'rename-plan', name: `Edit ${n}` },
        { kind: 'add-placement', placement: { id, sheet: { id: 'led-red-5mm', version: 1 }, name: id, straps: {} } },
        ...(n > 5 ? [{ kind: 'remove-placement', placement: `part-${n - 5}` }] : []),
      ];
      const answer = await call('POST', `/plans/${this.id}/edits`, { batch, edits }, this.revision).catch(() => null);
      if (!answer) return;
      if (answer.status !== 200) throw new Error(`an edit was answered ${answer.status}: ${JSON.stringify(answer.body.error)}`);
      this.acknowledged.push(batch);
      this.revision = answer.body.revision;
      this.count = n;
    }
  }

  /** @throws Error naming what is lost or half there */
  async verify() {
    const { body } = await call('GET', `/plans/${this.id}`);
    const recent = new Set(body.recent);
    const lost = this.acknowledged.slice(-150).filter((batch) => !recent.has(batch));
    if (lost.length > 0) throw new Error(`${lost.length} acknowledged edits are lost`);
    const n = body.plan.name.startsWith('Edit ') ? Number(body.plan.name.slice(5)) : 0;
    if (n < this.count || n > this.count + 1) throw new Error(`the plan is at edit ${n}, acknowledged were ${this.count}`);
    const parts = body.plan.placements.map((p) => p.id).join();
    const wanted = Array.from({ length: Math.min(5, n) }, (_, at) => `part-${n - Math.min(5, n) + 1 + at}`).join();
    if (parts !== wanted) throw new Error(`half applied: parts ${parts} instead of ${wanted}`);
    const unheard = n - this.count;
    this.count = n;
    this.revision = body.revision;
    return unheard;
  }
}

let server = startServer();
await server.ready;
const clients = [new Client(), new Client()];
for (const [at, client] of clients.entries()) await client.open(`Client ${at}`);
let unheard = 0;
try {
  for (let n = 0; n < kills; n += 1) {
    const editing = Promise.all(clients.map((client) => client.editUntilKilled()));
    await new Promise((resolve) => setTimeout(resolve, random() * 250));
    server.child.kill('SIGKILL');
    await Promise.all([editing, server.ended]);
    server = startServer();
    await server.ready;
    for (const client of clients) unheard += await client.verify();
  }
  const edits = clients.reduce((sum, client) => sum + client.acknowledged.length, 0);
  console.log(
    `${kills} kills, ${edits} acknowledged edits, all present; ${unheard} more were on the disk when their answer was cut off (seed ${values.seed})`,
  );
} catch (error) {
  console.error(`seed ${values.seed}: ${error.message}`);
  process.exitCode = 1;
} finally {
  server.child.kill('SIGTERM');
  await server.ended;
  rmSync(data, { recursive: true, force: true });
}
