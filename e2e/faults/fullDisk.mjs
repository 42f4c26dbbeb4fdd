// node e2e/faults/fullDisk.mjs: the real server on disks that fill up, in three ways: a file system of 2 MB, a limit on the
// size of files, and a disk that is full again and again while two clients edit. Each time: every answer is 200 or 507; what
// was answered 200 is there after room was made and after a kill; what was answered 507 goes through later.
import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Client, freePort, runCommand, startServer } from './realServer.mjs';

const EXPECTED = [200, 507];
const folder = mkdtempSync(join(tmpdir(), 'roof-chart-full-'));
const can = (command, ...args) => spawnSync(command, args, { stdio: 'ignore' }).status === 0;

/** A file system of so many kilobytes with a file that takes some of it. @returns undefined where that is not allowed here */
function smallDisk(name, kilobytes, filled) {
  const place = join(folder, name);
  mkdirSync(place);
  if (!can('mount', '-t', 'tmpfs', '-o', `size=${kilobytes}k`, 'tmpfs', place)) return undefined;
  const filler = join(place, 'filler');
  /** As much as was said, or as there is room for. */
  const fill = () => {
    try {
      writeFileSync(filler, Buffer.alloc(filled * 1024));
    } catch (error) {
      if (error.code !== 'ENOSPC') throw error;
    }
  };
  fill();
  return { data: join(place, 'data'), fill, free: () => rmSync(filler, { force: true }), end: () => can('umount', '-l', place) };
}

/** Edits until the disk has been full for a while. @returns how often it was */
async function editUntilFull(clients) {
  let full = 0;
  for (let n = 0; n < 4000 && full < 20; n += 1)
    for (const client of clients) {
      const status = await client.edit();
      if (!EXPECTED.includes(status)) throw new Error(`an edit was answered ${status}`);
      if (status === 507) full += 1;
    }
  if (full === 0) throw new Error('the disk never filled up');
  return full;
}

async function goOn(clients, edits) {
  for (let n = 0; n < edits; n += 1)
    for (const client of clients) if ((await client.edit()) !== 200) throw new Error('room was made, and an edit still failed');
}

/** @param rounds how often the disk fills and is freed before the kill */
async function onDisk(name, { data, fill, free, wrapper = [], restart }, rounds) {
  const port = await freePort();
  let server = startServer({ port, data, wrapper });
  await server.ready;
  const clients = [new Client(port), new Client(port)];
  for (const [at, client] of clients.entries()) await client.open(`Client ${at}`);
  let refused = 0;
  try {
    for (let round = 0; round < rounds; round += 1) {
      if (round > 0) fill();
      refused += await editUntilFull(clients);
      // Reading goes on while nothing can be written.
      for (const client of clients) await client.verify();
      if (restart) break;
      free();
      await goOn(clients, 20);
    }
    server.child.kill('SIGKILL');
    await server.ended;
    free();
    server = startServer({ port, data });
    await server.ready;
    for (const client of clients) await client.verify();
    await goOn(clients, 20);
    for (const client of clients) await client.verify();
  } finally {
    server.child.kill('SIGTERM');
    await server.ended;
  }
  const verified = await runCommand(['verify', '--data', data]);
  if (verified.code !== 0) throw new Error(`${name}: ${verified.said}`);
  const edits = clients.reduce((sum, client) => sum + client.acknowledged.length, 0);
  const slowest = Math.max(...clients.map((client) => client.slowest));
  console.log(`${name}: ${edits} edits acknowledged, all present; ${refused} answered 507; slowest answer ${slowest.toFixed(0)} ms`);
}

try {
  const small = smallDisk('small', 2048, 700);
  if (small) await onDisk('file system of 2 MB', small, 1).finally(small.end);
  else console.log('file system of 2 MB: not allowed here (mount), left out');
  const again = smallDisk('again', 4096, 1800);
  if (again) await onDisk('full three times', again, 3).finally(again.end);
  else console.log('full three times: not allowed here (mount), left out');
  // Only the process that is limited cannot write: room is made by starting it without the limit.
  const limited = { data: join(folder, 'limited'), fill() {}, free() {}, restart: true };
  if (can('prlimit', '--version')) await onDisk('limit of 1 MB a file', { ...limited, wrapper: ['prlimit', `--fsize=${2 ** 20}`] }, 1);
  else console.log('limit of 1 MB a file: prlimit is not here, left out');
} catch (error) {
  console.error(error.message);
  process.exitCode = 1;
} finally {
  rmSync(folder, { recursive: true, force: true });
}
