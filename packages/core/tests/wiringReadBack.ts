import type { WiringLine, WiringPicture } from '../src/outputs/wiring/wiringPicture';
import { boardOf } from '../src/plan/edit';
import { type Plan, terminalKey } from '../src/plan/plan';
import type { Sheets } from '../src/sheets/sheetIndex';

const lies = (x: number, y: number, { x1, y1, x2, y2 }: WiringLine): boolean =>
  x >= Math.min(x1, x2) && x <= Math.max(x1, x2) && y >= Math.min(y1, y2) && y <= Math.max(y1, y2);

/** The netlist of a picture as an eye follows its lines: lines are joined where one ends at another, not where they cross. What lies on the same
 *  rail or on ground of the board is joined there.
 *  @returns the part terminals of each net, sorted */
export function readBackWiring(plan: Plan, sheets: Sheets, picture: WiringPicture): readonly string[] {
  const { lines, modules, pins, board } = picture;
  const group = lines.map((_, at) => at);
  const rootOf = (at: number): number => (group[at] === at ? at : rootOf(group[at]!));
  const join = (a: number, b: number) => (group[rootOf(b)] = rootOf(a));
  const isEnd = (line: WiringLine, other: WiringLine) => lies(line.x1, line.y1, other) || lies(line.x2, line.y2, other);
  lines.forEach((line, at) =>
    lines.forEach((other, n) => {
      if (n !== at && isEnd(line, other)) join(at, n);
    }),
  );
  const sheet = boardOf(plan, sheets)!;
  const byPlace = new Map<string, number>();
  for (const pin of pins) {
    const edge = pin.side === 'left' ? board.x : board.x + board.width;
    const facts = sheet.pins.get(pin.id)!;
    const place = facts.kind === 'ground' ? 'ground' : facts.kind === 'supply' ? `rail ${facts.rail}` : (facts.sameAs ?? pin.id);
    lines.forEach((line, at) => {
      if (!lies(edge, pin.y, line)) return;
      const there = byPlace.get(place);
      if (there === undefined) byPlace.set(place, at);
      else join(there, at);
    });
  }
  const nets = new Map<number, string[]>();
  for (const { module, at, edge } of modules) {
    if (module.component) continue;
    for (const [terminal, y] of at)
      lines.forEach((line, n) => {
        const isHere = (line.x1 === edge && line.y1 === y) || (line.x2 === edge && line.y2 === y);
        if (isHere) nets.set(rootOf(n), [...(nets.get(rootOf(n)) ?? []), terminalKey(module.id, terminal)]);
      });
  }
  return [...nets.values()].map((keys) => keys.toSorted().join(' ')).toSorted();
}
