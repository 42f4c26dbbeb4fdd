import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { shippedSheets } from '../../tests/catalogue';
import { runCpp } from '../../tests/compilers';
import { CORE_NAMES } from '../../tests/coreVariants';
import { ontoBoard } from '../assign/ontoBoard';
import { terminalsOf } from '../nets/terminals';
import { boardOf } from '../plan/edit';
import type { Plan } from '../plan/plan';
import { readPlanFile } from '../plan/planFile';
import { constantSet, pinOf } from './constants/constantSet';
import { identifier } from './constants/names';
import { writeCpp } from './constants/writers';

const sheets = shippedSheets();
const BOARDS = Object.keys(CORE_NAMES);

/** What a program reached: group and name of the constant, and the header pin that its number or port is on this board. */
interface Reached {
  readonly constant: string;
  readonly pin: string;
}

/** A core with nothing behind it: it takes the numbers or ports that a program drives and prints the header pins that these are. */
function stubCore(boards: readonly { readonly id: string; readonly plan: Plan }[]): string {
  const cases = boards.flatMap(({ id }) => {
    const pins = [...sheets.boards.get(id)!.pins.values()].filter((pin) => pin.kind === 'io' && !pin.sameAs);
    return pins.flatMap((pin) => {
      const name = CORE_NAMES[id]!(pin.id);
      return name === undefined ? [] : [`  {"${id}", "${name}", "${pin.id}"},`];
    });
  });
  return `#pragma once
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
struct Known { const char *board, *name, *pin; };
static const Known KNOWN[] = {
${cases.join('\n')}
};
static const char *board = "";
inline void drive(const char *name, const char *constant) {
  for (const Known &one : KNOWN)
    if (!strcmp(one.board, board) && !strcmp(one.name, name)) { printf("%s %s %s\\n", board, constant, one.pin); return; }
  printf("%s %s nothing at %s\\n", board, constant, name);
}
inline void drive(unsigned number, const char *constant) {
  char name[12];
  snprintf(name, sizeof name, "%u", number);
  drive(name, constant);
}
`;
}

/** The pins that a plan has for every terminal that its constants name. */
function planned(plan: Plan): readonly Reached[] {
  const board = boardOf(plan, sheets)!;
  const set = constantSet(plan, sheets)!;
  return plan.placements.flatMap((placement) =>
    terminalsOf(plan, placement, sheets).flatMap((item): Reached[] => {
      const pin = pinOf(plan, sheets, board, item)?.pin.id;
      const title = `${placement.name}:`;
      const group = set.groups.find((one) => one.title.startsWith(title));
      const name = `pin_${identifier(item.terminal.id).replace(/_$/, '')}`;
      return pin !== undefined && group?.constants.some((one) => one.name.startsWith(`${name}_`))
        ? [{ constant: `${group.name}.${name}`, pin }]
        : [];
    }),
  );
}

const PLANS = ['hive-watch', 'proofing-box', 'ferry-dial', 'workbench-scoreboard'];

test.each(PLANS)('%s: on every board that carries it, what a compiled program drives is the header pin of the plan', (id) => {
  const read = readPlanFile(JSON.parse(readFileSync(join(__dirname, `../../../../demo/plans/${id}.json`), 'utf8')));
  if (!read.ok) throw new Error(read.fault);
  const carried = BOARDS.flatMap((board) => {
    const there = ontoBoard(read.file.plan, sheets, board, { nodes: 2000 })!;
    return there.settlement.open.length === 0 ? [{ id: board, plan: { ...there.plan, name: board } }] : [];
  });
  expect(carried.length).toBeGreaterThan(1);
  const sets = carried.map(({ id: board, plan }) => ({ board, set: constantSet(plan, sheets)!, plan }));
  const main = sets.flatMap(({ board, set, plan }) => [
    `  board = "${board}";`,
    ...planned(plan).map(({ constant }) => {
      const [group, name] = constant.split('.') as [string, string];
      const has = set.groups.find((one) => one.name === group)!.constants.some((one) => one.name === name);
      return `  drive(${set.name}::${group}::${name}${has ? '' : '_port'}, "${constant}");`;
    }),
  ]);
  const files = {
    'core.h': stubCore(carried),
    ...Object.fromEntries(sets.map(({ board, set }) => [`${board}.hpp`, writeCpp(set)])),
    'main.cpp': [
      '#include "core.h"',
      ...sets.map(({ board }) => `#include "${board}.hpp"`),
      'int main() {',
      ...main,
      '  return 0;',
      '}',
      '',
    ].join('\n'),
  };
  const lines = runCpp(files, 'main.cpp', 'c++11').trim().split('\n');
  expect(lines).toEqual(carried.flatMap(({ id: board, plan }) => planned(plan).map(({ constant, pin }) => `${board} ${constant} ${pin}`)));
  expect(lines.length).toBeGreaterThanOrEqual(5 * carried.length);
});
