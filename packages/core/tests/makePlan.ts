import { applyEdits } from '../src/plan/applyEdits';
import type { Edit } from '../src/plan/edit';
import { newPlan, type Plan, type WireEnd } from '../src/plan/plan';
import type { Sheets } from '../src/sheets/sheetIndex';

/** A plan after these edits.
 *  @throws Error when one does not apply */
export function edited(plan: Plan, sheets: Sheets, ...edits: readonly Edit[]): Plan {
  const result = applyEdits(plan, edits, sheets);
  if (!result.ok) throw new Error(`edit ${result.at}: ${JSON.stringify(result.problem)}`);
  return result.plan;
}

export const stick = (): Plan => newPlan('plan-1', 'Test', { id: 'rp2040-stick-40', version: 1 });
export const shield = (): Plan => newPlan('plan-1', 'Test', { id: 'atmega328p-5v-shield', version: 1 });

export const add = (id: string, sheet: string, name = id): Edit => ({
  kind: 'add-placement',
  placement: { id, sheet: { id: sheet, version: 1 }, name, straps: {} },
});

/** "GP4", "rail 3v3", "ground" or "part:terminal" as a wire end. */
function end(text: string): WireEnd {
  if (text === 'ground') return { to: 'ground' };
  if (text.startsWith('rail ')) return { to: 'rail', rail: text.slice(5) };
  const [placement, terminal] = text.split(':');
  return terminal ? { to: 'terminal', placement: placement!, terminal } : { to: 'pin', pin: text };
}

/** @example wire('oled:SDA', 'GP4') */
export function wire(from: string, to: string): Edit {
  const [placement, terminal] = from.split(':');
  return { kind: 'wire', placement: placement!, terminal: terminal!, end: end(to) };
}

/** A part with its wires.
 *  @example wired('oled', 'oled-096-ssd1306-i2c', { SDA: 'GP4', SCL: 'GP5' }) */
export const wired = (id: string, sheet: string, ends: { readonly [terminal: string]: string }): readonly Edit[] => [
  add(id, sheet),
  ...Object.entries(ends).map(([terminal, to]) => wire(`${id}:${terminal}`, to)),
];
