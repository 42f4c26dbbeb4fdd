import type { CalcResult } from '@roof-chart/core/electrics/calculations/calculation';
import type { Edit } from '@roof-chart/core/plan/edit';
import { type Driver, splitKey, type TerminalKey } from '@roof-chart/core/plan/plan';

/** Calculations whose result can be applied to a terminal of a plan, and as what. */
export const ENTRIES: { readonly [id: string]: string } = {
  led: 'a resistor in the wire',
  multiplex: 'a resistor in the wire',
  'current-set': 'a resistor in the wire',
  damping: 'a resistor in the wire',
  'i2c-series': 'a resistor in the wire',
  divider: 'a divider',
  'pull-up': 'a pull-up',
  'line-pull-up': 'a pull-up',
  'one-wire-pull-up': 'a pull-up',
  'transistor-base': 'a transistor',
  'transistor-gate': 'a transistor',
};

/** The kinds of transistor that a calculation is about. */
export const TRANSISTOR_KINDS: { readonly [id: string]: readonly Driver['kind'][] } = {
  'transistor-base': ['npn', 'pnp'],
  'transistor-gate': ['nmos', 'pmos'],
};

const numberIn = (result: CalcResult, name: string): number | undefined => {
  const value = result.outputs[name];
  return typeof value === 'number' && value > 0 ? value : undefined;
};

/** The edits that put a result at a terminal; undefined where it came to nothing. */
export function calcEdits(id: string, result: CalcResult, key: TerminalKey, kind: Driver['kind'] = 'npn'): readonly Edit[] | undefined {
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
  if (id === 'transistor-base' || id === 'transistor-gate') return [{ kind: 'driver', ...at, driver: { kind, ohms } }];
  if (ENTRIES[id] === 'a pull-up') return [{ kind: 'pull', ...at, pull: { ohms, to: 'supply' } }];
  return ENTRIES[id] === undefined ? undefined : [{ kind: 'series', ...at, ohms }];
}

/** The edits that give keys on one analog pin the resistors that were found; undefined where none were. */
export function ladderEdits({ values }: CalcResult, placement: string): readonly Edit[] | undefined {
  const [pull, ...row] = values ?? [];
  return pull === undefined ? undefined : [{ kind: 'ladder', placement, ladder: { pull, row } }];
}
