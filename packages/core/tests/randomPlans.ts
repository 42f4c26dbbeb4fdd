import { newPlan, type Plan } from '../src/plan/plan';
import { additionOf } from '../src/review/addition';
import type { Sheets } from '../src/sheets/sheetIndex';

/** Numbers from 0 to 1, the same for the same seed. */
function draws(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1_664_525 + 1_013_904_223) % 2 ** 32;
    return state / 2 ** 32;
  };
}

/** A plan of some parts on some board, added and connected one after the other as the application does.
 *  @param parts how many at least and at most */
export function wiredPlan(sheets: Sheets, seed: number, parts: readonly [number, number]): Plan {
  const draw = draws(seed);
  for (let n = 0; n < 8; n += 1) draw();
  const pick = <T>(list: readonly T[]): T => list[Math.floor(draw() * list.length)]!;
  const { sheet: board } = pick([...sheets.boards.values()]);
  const all = [...sheets.parts.values()].map(({ sheet }) => sheet);
  let plan = newPlan(`random-${seed}`, `Random ${seed}`, { id: board.id, version: board.version });
  const count = parts[0] + Math.floor(draw() * (parts[1] - parts[0] + 1));
  for (let n = 0; n < count; n += 1) plan = additionOf(plan, sheets, pick(all))?.plan ?? plan;
  return plan;
}
