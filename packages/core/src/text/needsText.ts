import { listText } from './names';
import type { Component } from '../electrics/reports/components';
import { counted } from '../quantity/format';
import type { AdditionNeeds } from '../review/additionNeeds';

const KINDS: readonly Component['kind'][] = ['resistor', 'trimmer', 'transistor', 'diode', 'capacitor'];

/** What comes with a part, or is used of what is there.
 *  @example needsText(needs) // 'buffer 74AHCT125 and 1 capacitor' */
export function needsText({ adds, uses, software, components }: Pick<AdditionNeeds, 'adds' | 'uses' | 'software' | 'components'>): string {
  const chips = [...uses.map((helper) => `${helper} of the plan`), ...[...new Set(adds)].map((helper) => severalOf(helper, adds))];
  const counts = KINDS.flatMap((kind) => (components[kind] === undefined ? [] : counted(components[kind], kind)));
  const all = [...chips, ...software, ...counts];
  return all.length > 0 ? listText(all) : 'other component values';
}

function severalOf(helper: string, adds: readonly string[]): string {
  const count = adds.filter((one) => one === helper).length;
  return count > 1 ? `${count} × ${helper}` : helper;
}
