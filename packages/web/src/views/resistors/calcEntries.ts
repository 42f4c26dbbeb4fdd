import type { CalcResult } from '@roof-chart/core/electrics/calculations/calculation';
import type { Edit } from '@roof-chart/core/plan/edit';
import { splitKey, type TerminalKey } from '@roof-chart/core/plan/plan';

/** Calculations whose result can stand in a plan, with what it is there. */
export const ENTRIES: { readonly [id: string]: string } = {
  led: 'a resistor in the wire',
  divider: 'a divider',
  'pull-up': 'a pull-up',
  'transistor-base': 'a transistor',
};

const numberIn = (result: CalcResult, name: string): number | undefined => {
  const value = result.outputs[name];
  return typeof value === 'number' && value > 0 ? value : undefined;
};

/** The edits that put a result at a terminal; undefined where it came to nothing. */
export function calcEdits(id: string, result: CalcResult, key: TerminalKey): readonly Edit[] | undefined {
  const at = splitKey(key);
  const ohms = numberIn(result, 'ohms') ?? numberIn(result, 'add');
  if (id === 'divider') {
    const [top, bottom] = [numberIn(result, 'top'), numberIn(result, 'bottom')];
    if (top === undefined || bottom === undefined) return undefined;
    return [
      { kind: 'series', ...at, ohms: top },
      { kind: 'pull', ...at, pull: { ohms: bottom, to: 'ground' } },
    ];
  }
  if (ohms === undefined) return undefined;
  if (id === 'led') return [{ kind: 'series', ...at, ohms }];
  if (id === 'pull-up') return [{ kind: 'pull', ...at, pull: { ohms, to: 'supply' } }];
  return id === 'transistor-base' ? [{ kind: 'driver', ...at, driver: { kind: 'npn', ohms } }] : undefined;
}
