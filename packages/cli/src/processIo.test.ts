import { chmodSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { InputFault } from './io';
import { readText, writeText } from './processIo';

const folder = mkdtempSync(join(tmpdir(), 'roof-chart-cli-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const at = (name: string) => join(folder, name);
const fault = (run: () => void): string => {
  try {
    run();
  } catch (error) {
    expect(error).toBeInstanceOf(InputFault);
    return (error as Error).message;
  }
  return 'none';
};

test('a file is replaced whole, keeps its mode, and leaves nothing beside it', () => {
  writeFileSync(at('plan.json'), 'old');
  chmodSync(at('plan.json'), 0o640);
  writeText(at('plan.json'), 'new');
  expect([readFileSync(at('plan.json'), 'utf8'), readdirSync(folder)]).toEqual(['new', ['plan.json']]);
});

test('a write that fails is one sentence, and the file is as it was', () => {
  mkdirSync(at('taken'));
  expect(fault(() => writeText(at('taken'), 'x'))).toBe(`${at('taken')} cannot be written: it is a folder. Nothing was changed.`);
  expect(fault(() => writeText(at('no/where.json'), 'x'))).toMatch(/its folder does not exist\. Nothing was changed\.$/);
  if (existsSync('/dev/full'))
    expect(fault(() => writeText('/dev/full', 'x'))).toMatch(/^\/dev\/full cannot be written: the disk is full\./);
});

test('a byte order mark is no part of a text', () => {
  writeFileSync(at('marked.json'), '\uFEFF{"a":1}');
  expect(readText(at('marked.json'))).toBe('{"a":1}');
});
