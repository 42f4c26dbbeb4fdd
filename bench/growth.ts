import { buildInstance } from '@roof-chart/core/assign/model/buildInstance';
import { solve } from '@roof-chart/core/assign/solve/solve';
import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import { newPlan, type Plan } from '@roof-chart/core/plan/plan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';

/** Parts in the order in which they are added, over and over: buses, selects, analog, PWM and plain signals. */
const PARTS = [
  'oled-096-ssd1306-i2c',
  'encoder-rotary-switch',
  'led-red-5mm',
  'motion-mpu6050',
  'sd-card-3v3',
  'potentiometer',
  'servo-micro',
  'load-cell-hx711',
  'button-push',
  'humidity-sht31',
];

/** A plan with at least so many terminals that want a pin. */
function planOf(terminals: number, board: string, sheets: Sheets): Plan {
  let plan = newPlan('growth', 'Growth', { id: board, version: sheets.boards.get(board)!.sheet.version });
  const known = PARTS.filter((id) => sheets.parts.has(id));
  for (let n = 0; ; n += 1) {
    const instance = buildInstance(plan, sheets, sheets.boards.get(board)!);
    if (instance.items.length + instance.members.reduce((sum, m) => sum + m.lines.length, 0) >= terminals) return plan;
    const sheet = sheets.parts.get(known[n % known.length]!)!.sheet;
    const placement = { id: `p${n}`, sheet: { id: sheet.id, version: sheet.version }, name: `P${n}`, straps: {} };
    const added = applyEdits(plan, [{ kind: 'add-placement', placement }], sheets);
    if (!added.ok) throw new Error(JSON.stringify(added.problem));
    plan = added.plan;
  }
}

const SIZES = [5, 10, 20, 40, 80, 120, 200, 300] as const;

/** Time to proof from 5 to 300 terminals on a 144-pin board and on a 26-pin one. The limit is ten seconds. */
export function growth(sheets: Sheets, large: string, small: string): string {
  const row = (board: string, terminals: number) => {
    const plan = planOf(terminals, board, sheets);
    const times = Array.from({ length: terminals > 100 ? 3 : 9 }, () => {
      const from = performance.now();
      const solved = solve(buildInstance(plan, sheets, sheets.boards.get(board)!), { stop: () => performance.now() - from > 10_000 });
      return { ms: performance.now() - from, solved };
    }).sort((a, b) => a.ms - b.ms);
    const { ms, solved } = times[times.length >> 1]!;
    return `| ${terminals} × ${sheets.boards.get(board)!.ioPins.length} pins | ${ms.toFixed(1)} | ${solved.nodes} | ${solved.proved ? 'yes' : 'no'} | ${solved.costs.unwired} |`;
  };
  const rows = [...SIZES.map((n) => row(large, n)), ...SIZES.filter((n) => n <= 80).map((n) => row(small, n))];
  return ['| terminals × pins | median ms to proof | nodes | proved | left open |', '|---|---:|---:|---|---:|', ...rows].join('\n');
}
