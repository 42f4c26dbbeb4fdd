import { join } from 'node:path';
import { readFileSync } from 'node:fs';
import { loadCatalogue } from './catalogue';
import { InputFault } from './io';
import { runProgram } from './program';

const sheets = loadCatalogue(join(__dirname, '../../catalogue'));
const hive = readFileSync(join(__dirname, '../../../demo/plans/hive-watch.json'), 'utf8');

async function cli(args: string[], files: Record<string, string> = {}) {
  const out: string[] = [];
  const err: string[] = [];
  const read = (path: string) => {
    if (files[path] === undefined) throw new InputFault(`${path} cannot be read: ENOENT`);
    return files[path];
  };
  const code = await runProgram(
    args,
    { out: (t) => out.push(t), err: (t) => err.push(t), read, write: (path, text) => void (files[path] = text) },
    () => sheets,
  );
  return { code, out: out.join('\n'), err: err.join('\n') };
}

test('check says clashes with their remedies and ends with 1', async () => {
  const { code, out } = await cli(['check', '-'], { '-': hive });
  expect(code).toBe(1);
  expect(out).toMatch(/clash {2}GP22 carries 2 signals {2}\[pin-shared\][^]*remedy: Move Status LED anode to GP2/);
  const json = JSON.parse((await cli(['check', '--json', '-'], { '-': hive })).out) as {
    findings: { code: string; text: { title: string } }[];
  };
  expect(json.findings.map((f) => [f.code, f.text.title])).toEqual([
    ['address-shared', '0x68 is claimed by 2 parts'],
    ['pin-shared', 'GP22 carries 2 signals'],
  ]);
});

test('a plan without findings ends with 0', async () => {
  const plan = { ...(JSON.parse(hive) as object), placements: [], wires: {}, ticks: {} };
  expect(await cli(['check', 'p.json'], { 'p.json': JSON.stringify(plan) })).toEqual({ code: 0, out: 'No findings.', err: '' });
});

test.each([
  ['no such file', ['check', 'x'], {}, /x cannot be read: ENOENT/],
  ['no JSON', ['check', '-'], { '-': '{"format":' }, /-: not valid JSON/],
  ['another format', ['check', '-'], { '-': '{"format":"x"}' }, /-: format: /],
  ['a plan from the future', ['check', '-'], { '-': hive.replace('"formatVersion": 1', '"formatVersion": 9') }, /-: formatVersion: /],
  ['a prototype key', ['check', '-'], { '-': hive.replace('"wires": {', '"wires": {"__proto__": {},') }, /-: wires\.__proto__: /],
  ['a sheet that is gone', ['check', '-'], { '-': hive.replaceAll('humidity-sht31', 'humidity-x') }, /needs the part sheet humidity-x/],
  ['an unknown command', ['solder'], {}, /unknown command 'solder'/],
  ['a missing argument', ['check'], {}, /missing required argument/],
])('%s is one sentence and ends with 2', async (_, args, files, words) => {
  const { code, out, err } = await cli(args, files);
  expect({ code, out }).toEqual({ code: 2, out: '' });
  expect(err).toMatch(words);
});
