import { atOrThrow } from '../collections/orThrow';
import { BANK, canMultiplex, commonsOf, driverAt, multiplexedLeds, segmentsOfPart } from '../nets/multiplexed';
import { applyEdits } from '../plan/applyEdits';
import type { Edit } from '../plan/edit';
import { type Placement, type Plan, type TerminalKey, terminalKey, type WireEnd } from '../plan/plan';
import { SEGMENTS } from '../displays/glyphs';
import type { PartSheet, PartTerminal } from '../sheets/partSheet';
import { partSheet, type Sheets } from '../sheets/sheetIndex';

/** Digits put on a driver that lights them in turn, or why not. */
export type OntoDriver =
  | { readonly ok: true; readonly edits: readonly Edit[] }
  /** `polarity`: the driver is for the other common; `digits`, `segments`: so many of the part, so many free; `locked`: a wire is. */
  | { readonly ok: false; readonly reason: 'polarity' | 'locked' }
  | { readonly ok: false; readonly reason: 'digits' | 'segments'; readonly wanted: number; readonly free: number };

/** The wire of a terminal to an end, with what was in the old wire taken out: the driver limits and switches the current. */
export function rewired(plan: Plan, placement: string, terminal: string, end: WireEnd): readonly Edit[] {
  const key = terminalKey(placement, terminal);
  const at = { placement, terminal };
  return [
    ...(plan.series[key] === undefined ? [] : [{ kind: 'series' as const, ...at, ohms: null }]),
    ...(plan.drivers[key] ? [{ kind: 'driver' as const, ...at, driver: null }] : []),
    ...(plan.pulls[key] ? [{ kind: 'pull' as const, ...at, pull: null }] : []),
    { kind: 'wire', ...at, end },
  ];
}

/** The commons that a wire is for: one of each digit, the others being joined to it on the part. */
function wiredCommons(part: PartSheet): { readonly wired: readonly PartTerminal[]; readonly joined: readonly PartTerminal[] } {
  const all = commonsOf(part);
  if (all.some((t) => t.digit)) return { wired: all, joined: [] };
  return { wired: all.slice(0, 1), joined: all.slice(1) };
}

/** The segment lines of a part by the output that each goes to: a segment of a digit to the output of its name's bit, lights of other kinds
 *  in printed order. */
function placesOf(driver: PartSheet, part: PartSheet, bank: number): readonly (readonly [PartTerminal, string])[] | undefined {
  const outputs = (driver.multiplex?.segments ?? []).slice(bank * BANK, (bank + 1) * BANK);
  const lines = segmentsOfPart(part);
  const named = outputs.map((id) => SEGMENTS.find((segment) => id.toLowerCase() === `seg${segment}`));
  const isDigit = lines.every((t) => SEGMENTS.some((segment) => segment === t.id));
  const places = lines.map((t, at): readonly [PartTerminal, string | undefined] => {
    const index = !isDigit
      ? at
      : named.includes(undefined)
        ? SEGMENTS.findIndex((segment) => segment === t.id)
        : named.findIndex((segment) => segment === t.id);
    return [t, outputs[index]];
  });
  return places.every((place): place is readonly [PartTerminal, string] => place[1] !== undefined) ? places : undefined;
}

/** Puts the digits or lights of a part on a driver of the plan: its segment lines at the segment outputs, in the order of the bits, and its
 *  digits at the next free digit outputs, in order. Resistors and transistors in their wires go.
 *  @example ontoDriver(plan, sheets, digits, max7219) // { ok: true, edits: [a to SEGA, ..., DIG1 to DIG0, ...] } */
export function ontoDriver(plan: Plan, sheets: Sheets, display: Placement, driver: Placement): OntoDriver {
  const [part, chip] = [partSheet(sheets, display.sheet)?.sheet, partSheet(sheets, driver.sheet)?.sheet];
  if (!part || !chip?.multiplex || !canMultiplex(chip, part)) return { ok: false, reason: 'polarity' };
  const { multiplex } = chip;
  const { wired, joined } = wiredCommons(part);
  const own = (t: PartTerminal): TerminalKey => terminalKey(display.id, t.id);
  if ([...segmentsOfPart(part), ...commonsOf(part)].some((t) => plan.wires[own(t)]?.locked)) return { ok: false, reason: 'locked' };
  const others = multiplexedLeds(plan, sheets).filter((led) => led.driver === driver.id && !led.key.startsWith(`${display.id}:`));
  const lines = segmentsOfPart(part).length;
  let free = 0;
  for (let bank = 0; bank * BANK < multiplex.segments.length; bank += 1) {
    const places = placesOf(chip, part, bank);
    if (!places) return { ok: false, reason: 'segments', wanted: lines, free: Math.min(BANK, multiplex.segments.length) };
    const taken = new Set(others.filter((led) => Math.floor(led.segment / BANK) === bank).map((led) => led.digit));
    const outputs = multiplex.digits.filter((_, at) => !taken.has(at));
    free = Math.max(free, outputs.length);
    if (outputs.length < wired.length) continue;
    const end = (terminal: string): WireEnd => ({ to: 'terminal', placement: driver.id, terminal });
    return {
      ok: true,
      edits: [
        ...places.flatMap(([t, output]) => rewired(plan, display.id, t.id, end(output))),
        ...wired.flatMap((t, at) => rewired(plan, display.id, t.id, end(atOrThrow(outputs, at)))),
        ...joined.flatMap((t): Edit[] => (plan.wires[own(t)] ? [{ kind: 'unwire', placement: display.id, terminal: t.id }] : [])),
      ],
    };
  }
  return { ok: false, reason: 'digits', wanted: wired.length, free };
}

/** The drivers of a plan on which a part could be put, with the edits; those that it is on already are left out. */
export function driversFor(
  plan: Plan,
  sheets: Sheets,
  display: Placement,
): readonly { readonly driver: Placement; readonly edits: readonly Edit[] }[] {
  const part = partSheet(sheets, display.sheet)?.sheet;
  if (!part || display.onBoard) return [];
  const present = new Set(segmentsOfPart(part).map((t) => driverAt(plan, sheets, terminalKey(display.id, t.id))?.driver));
  return plan.placements.flatMap((driver) => {
    if (driver.id === display.id || present.has(driver.id)) return [];
    const onto = ontoDriver(plan, sheets, display, driver);
    return onto.ok ? [{ driver, edits: onto.edits }] : [];
  });
}

/** Parts with fewer lines, such as a status LED or an RGB LED that is dimmed, are usually wired to pins: only the user puts them on a driver. */
const MANY_LINES = 7;

/** Wires for bare digits and bar graphs without any wire on the drivers that a plan has: a driver with room spares the pins.
 *  @param only the placement to look at; without it all */
export function ontoFreeDrivers(plan: Plan, sheets: Sheets, only?: string): readonly Edit[] {
  if (!plan.placements.some(({ sheet }) => partSheet(sheets, sheet)?.sheet.multiplex)) return [];
  let now = plan;
  const edits: Edit[] = [];
  for (const display of plan.placements) {
    const part = partSheet(sheets, display.sheet)?.sheet;
    if (!part || segmentsOfPart(part).length < MANY_LINES || (only !== undefined && display.id !== only)) continue;
    const lines = [...segmentsOfPart(part), ...commonsOf(part)];
    if (lines.some((t) => plan.wires[terminalKey(display.id, t.id)])) continue;
    const [onto] = driversFor(now, sheets, display);
    if (!onto) continue;
    const moved = applyEdits(now, onto.edits, sheets);
    if (!moved.ok) continue;
    now = moved.plan;
    edits.push(...onto.edits);
  }
  return edits;
}
