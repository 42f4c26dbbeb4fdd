// node e2e/faults/kills.mjs --kills N [--seed S]: kills the real server (kill -9) at random moments while two clients
// edit, starts it again, and asks whether every acknowledged edit is there and nothing is half applied.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { Client, freePort, randomFrom, runCommand, startServer } from './realServer.mjs';

const { values } = parseArgs({
  options: { kills: { type: 'string', default: '200' }, seed: { type: 'string', default: String(Date.now() % 1e6) } },
});
const kills = Number(values.kills);
const random = randomFrom(Number(values.seed));
const port = await freePort();
const data = mkdtempSync(join(tmpdir(), 'roof-chart-kill-'));

let server = startServer({ port, data });
await server.ready;
const clients = [new Client(port), new Client(port)];
for (const [at, client] of clients.entries()) await client.open(`Client ${at}`);
let unheard = 0;
try {
  for (let n = 0; n < kills; n += 1) {
    const editing = Promise.all(clients.map((client) => client.editUntilCut()));
    await new Promise((resolve) => setTimeout(resolve, random() * 250));
    server.child.kill('SIGKILL');
    await Promise.all([editing, server.ended]);
    server = startServer({ port, data });
    await server.ready;
    for (const client of clients) unheard += await client.verify();
  }
  server.child.kill('SIGTERM');
  await server.ended;
  const verified = await runCommand(['verify', '--data', data]);
  if (verified.code !== 0) throw new Error(`verify found faults: ${verified.said}`);
  const edits = clients.reduce((sum, client) => sum + client.acknowledged.length, 0);
  console.log(
    `${kills} kills, ${edits} acknowledged edits, all present; ${unheard} more were on the disk when their answer was cut off; logs replay (seed ${values.seed})`,
  );
} catch (error) {
  console.error(`seed ${values.seed}: ${error.message}`);
  process.exitCode = 1;
} finally {
  server.child.kill('SIGTERM');
  await server.ended;
  rmSync(data, { recursive: true, force: true });
}
