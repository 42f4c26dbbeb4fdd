// The real, built server as a process of its own, and a client that knows what it was promised.
import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = dirname(dirname(dirname(fileURLToPath(import.meta.url))));
export const program = join(root, 'packages/server/dist/main.mjs');

/** Small seeded generator (mulberry32), so that a failure can be run again. */
export function randomFrom(seed) {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** @returns {Promise<number>} a port of the loopback interface that nothing listens on */
export const freePort = () =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });

/** Starts the server.
 *  @param {{ port: number, data: string, extra?: string[], wrapper?: string[], env?: Record<string, string>, program?: string }} options
 *    `wrapper`: a program that runs it, such as `prlimit`, with its arguments; `program`: the built server, if not that of this folder
 *  @returns {{ child: import('node:child_process').ChildProcess, ready: Promise<void>, ended: Promise<unknown>, said: () => string }} */
export function startServer({ port, data, extra = [], wrapper = [], env = {}, program: built = program }) {
  const [command, ...args] = [...wrapper, process.execPath, built, '--port', String(port), '--data', data, ...extra];
  const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'], env: { ...process.env, ...env } });
  let said = '';
  const ended = new Promise((resolve) => child.once('exit', resolve));
  const ready = new Promise((resolve, reject) => {
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (chunk) => (said += chunk).includes('Roof Chart is at') && resolve());
    void ended.then(() => reject(new Error(`the server did not start: ${said}`)));
  });
  // Whoever does not wait for the start hears of its failure by `ended`.
  ready.catch(() => undefined);
  return { child, ready, ended, said: () => said };
}

/** Runs one command of the server's program.
 *  @param {string[]} args
 *  @param {string[]} wrapper
 *  @returns {Promise<{ code: number | null, said: string }>} its exit code and what it said */
export function runCommand(args, wrapper = []) {
  const [command, ...rest] = [...wrapper, process.execPath, program, ...args];
  const child = spawn(command, rest, { stdio: ['ignore', 'pipe', 'pipe'] });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => (said += chunk));
  return new Promise((resolve) => child.once('close', (code) => resolve({ code, said })));
}

/** A client of one plan: each edit is a pair that must be there together or not at all. */
export class Client {
  acknowledged = [];
  /** How often each answer came. */
  answers = {};
  /** The slowest answer, in milliseconds. */
  slowest = 0;
  count = 0;

  constructor(port) {
    this.base = `http://127.0.0.1:${port}/api`;
  }

  async call(method, path, body) {
    const headers = { 'Content-Type': 'application/json', ...(this.etag ? { 'If-Match': this.etag } : {}) };
    const from = performance.now();
    const response = await fetch(this.base + path, { method, headers, body: body && JSON.stringify(body) });
    const answer = { status: response.status, body: await response.json(), etag: response.headers.get('ETag') };
    this.slowest = Math.max(this.slowest, performance.now() - from);
    return answer;
  }

  async open(name) {
    const made = await this.call('POST', '/plans', { name, board: 'rp2040-stick-40' });
    this.id = made.body.plan.id;
    this.etag = made.etag;
  }

  /** One edit. @returns the status, or null where the connection was cut */
  async edit() {
    const n = this.count + 1;
    const batch = randomUUID();
    const id = `part-${n}`;
    const edits = [
      { kind: 'rename-plan', name: `Edit ${n}` },
      { kind: 'add-placement', placement: { id, sheet: { id: 'led-red-5mm', version: 1 }, name: id, straps: {} } },
      ...(n > 5 ? [{ kind: 'remove-placement', placement: `part-${n - 5}` }] : []),
    ];
    const answer = await this.call('POST', `/plans/${this.id}/edits`, { batches: [{ batch, edits }] }).catch(() => null);
    if (!answer) return null;
    this.answers[answer.status] = (this.answers[answer.status] ?? 0) + 1;
    if (answer.status === 200) {
      this.acknowledged.push(batch);
      this.etag = answer.etag;
      this.count = n;
    }
    return answer.status;
  }

  /** Edits until the connection is cut. @throws Error at an answer that is none of those expected */
  async editUntilCut(expected = [200]) {
    for (;;) {
      const status = await this.edit();
      if (status === null) return;
      if (!expected.includes(status)) throw new Error(`an edit was answered ${status}`);
    }
  }

  /** @returns how many edits were on the disk whose answer was cut off
   *  @throws Error naming what is lost or half there */
  async verify() {
    const { body, etag } = await this.call('GET', `/plans/${this.id}`);
    const { taken } = (await this.call('POST', `/plans/${this.id}/taken`, { batches: this.acknowledged.slice(-4000) })).body;
    const there = new Set(taken);
    const lost = this.acknowledged.slice(-4000).filter((batch) => !there.has(batch));
    if (lost.length > 0) throw new Error(`${lost.length} of ${this.acknowledged.length} acknowledged edits are lost`);
    const n = body.plan.name.startsWith('Edit ') ? Number(body.plan.name.slice(5)) : 0;
    if (n < this.count || n > this.count + 1) throw new Error(`the plan is at edit ${n}, acknowledged were ${this.count}`);
    const parts = body.plan.placements.map((p) => p.id).join();
    const wanted = Array.from({ length: Math.min(5, n) }, (_, at) => `part-${n - Math.min(5, n) + 1 + at}`).join();
    if (parts !== wanted) throw new Error(`half applied: parts ${parts} instead of ${wanted}`);
    const unheard = n - this.count;
    this.count = n;
    this.etag = etag;
    return unheard;
  }
}
