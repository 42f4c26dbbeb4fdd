import type { WiringLine, WiringPicture } from './wiringPicture';

export interface WiringMeasures {
  /** Places where lines of two conductors cross. */
  readonly crossings: number;
  /** Corners and branches. */
  readonly bends: number;
  /** Places where lines of two conductors lie on or end at each other, which would read as a connection. */
  readonly overlaps: number;
  /** Of all lines, in pixels. */
  readonly length: number;
}

const isDown = ({ x1, x2 }: WiringLine): boolean => x1 === x2;
const low = (a: number, b: number) => Math.min(a, b);
const high = (a: number, b: number) => Math.max(a, b);

/** How two lines meet: `cross` in the inside of both, `touch` where one ends at the other or both lie on each other. */
function meeting(a: WiringLine, b: WiringLine): 'cross' | 'touch' | undefined {
  if (isDown(a) === isDown(b)) {
    const [fixedA, fixedB] = isDown(a) ? [a.x1, b.x1] : [a.y1, b.y1];
    if (fixedA !== fixedB) return undefined;
    const span = (line: WiringLine) => (isDown(line) ? [line.y1, line.y2] : [line.x1, line.x2]) as [number, number];
    const [[a1, a2], [b1, b2]] = [span(a), span(b)];
    return high(low(a1, a2), low(b1, b2)) <= low(high(a1, a2), high(b1, b2)) ? 'touch' : undefined;
  }
  const [down, along] = isDown(a) ? [a, b] : [b, a];
  const [x, y] = [down.x1, along.y1];
  const [left, right] = [low(along.x1, along.x2), high(along.x1, along.x2)];
  const [top, bottom] = [low(down.y1, down.y2), high(down.y1, down.y2)];
  if (x < left || x > right || y < top || y > bottom) return undefined;
  return x === left || x === right || y === top || y === bottom ? 'touch' : 'cross';
}

/** Measures of a picture from its lines alone, whatever routed them. */
export function measureWiring({ lines }: Pick<WiringPicture, 'lines'>): WiringMeasures {
  let [crossings, overlaps] = [0, 0];
  const bends = new Set<string>();
  lines.forEach((a, at) => {
    for (const b of lines.slice(at + 1)) {
      const how = meeting(a, b);
      if (how === undefined) continue;
      if (a.conductor === b.conductor) {
        if (isDown(a) !== isDown(b)) bends.add(`${a.conductor} ${isDown(a) ? a.x1 : b.x1} ${isDown(a) ? b.y1 : a.y1}`);
      } else if (how === 'cross') crossings += 1;
      else overlaps += 1;
    }
  });
  const length = lines.reduce((sum, { x1, y1, x2, y2 }) => sum + Math.abs(x1 - x2) + Math.abs(y1 - y2), 0);
  return { crossings, bends: bends.size, overlaps, length };
}
