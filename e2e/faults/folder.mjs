// node e2e/faults/folder.mjs: what must not happen to a data folder that a real server uses: a second server, a restore under
// it, backups that are not whole while it writes. Then a restore with the server stopped.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Client, freePort, runCommand, startServer } from './realServer.mjs';

const data = mkdtempSync(join(tmpdir(), 'roof-chart-folder-'));
const port = await freePort();
const must = (condition, words) => {
  if (!condition) throw new Error(words);
};

let server = startServer({ port, data });
await server.ready;
const client = new Client(port);
await client.open('Under load');
try {
  let editing = client.editUntilCut();
  const second = startServer({ port: await freePort(), data });
  must((await second.ended) === 1, 'a second server started');
  must(second.said().includes(`process ${server.child.pid}`), `the second server does not say who holds the folder: ${second.said()}`);
  const backups = [];
  for (let n = 0; n < 5; n += 1) {
    const file = join(data, 'backups', `under-load-${n}.sqlite`);
    const made = await runCommand(['backup', file, '--data', data]);
    must(made.code === 0, `backup under load failed: ${made.said}`);
    const verified = await runCommand(['verify', file]);
    must(verified.code === 0, `a backup under load is not sound: ${verified.said}`);
    backups.push({ file, atLeast: client.count });
  }
  const refused = await runCommand(['restore', backups[0].file, '--data', data]);
  must(refused.code === 1 && refused.said.includes('in use by'), `restore under a live server: ${refused.said}`);
  const archive = await runCommand(['export', join(data, 'all.zip'), '--data', data]);
  must(archive.code === 0, `export under load failed: ${archive.said}`);
  server.child.kill('SIGKILL');
  await Promise.all([editing, server.ended]);
  server = startServer({ port, data });
  await server.ready;
  await client.verify();
  const edits = client.acknowledged.length;
  const before = client.etag;
  server.child.kill('SIGTERM');
  await server.ended;
  const restored = await runCommand(['restore', backups[2].file, '--data', data]);
  must(restored.code === 0, `restore failed: ${restored.said}`);
  server = startServer({ port, data });
  await server.ready;
  const { body, etag } = await client.call('GET', `/plans/${client.id}`);
  must(body.revision >= backups[1].atLeast, 'the restored plan is older than its backup');
  must(etag.split('-')[1] !== before.split('-')[1], 'the epoch is the same after a restore');
  // The client's tag is of the life before: its edit must not land.
  must((await client.edit()) === 412, 'an edit of before the restore landed');
  console.log(
    `two servers refused one, 5 sound backups and an export under ${edits} edits, restore refused while live, epoch changed after it`,
  );
} catch (error) {
  console.error(error.message);
  process.exitCode = 1;
} finally {
  server.child.kill('SIGTERM');
  await server.ended;
  rmSync(data, { recursive: true, force: true });
}
