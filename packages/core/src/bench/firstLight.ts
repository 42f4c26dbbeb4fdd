import { has } from '../collections/has';
import { isAboutFacts } from '../checks/engine/check';
import { describeFinding } from '../text/describe';
import { throughPart } from '../nets/passThrough';
import { terminalsOf } from '../nets/terminals';
import { boardOf } from '../plan/edit';
import { type Placement, type Plan, sameEnd } from '../plan/plan';
import { findingsOf } from '../review/review';
import { PIN_ROLES } from '../sheets/roles';
import { partSheet, partSheetOrThrow, type Sheets } from '../sheets/sheetIndex';
import { sightOf } from './firstSight';

/** Why a part may show nothing, in words, and how likely that is against the others. */
export interface Cause {
  readonly words: string;
  readonly weight: number;
}

/** What to look for at a part when power comes on for the first time, and what to look at when it is not there. */
export interface FirstLight {
  readonly placement: string;
  readonly see: string;
  /** The likeliest first, for this plan. */
  readonly causes: readonly Cause[];
  readonly seen: boolean;
}

const LEVEL_WEIGHT = { clash: 100, risk: 55, hint: 20 } as const;
const WEIGHT = { unticked: 90, unwired: 85, sheet: 40, shifter: 32, swapped: 30, rail: 28, address: 26, position: 24, shared: 18 } as const;

/** What the plan itself has against the part. */
function fromFindings(plan: Plan, sheets: Sheets, placement: Placement): readonly Cause[] {
  return findingsOf(plan, sheets)
    .filter((finding) => !isAboutFacts(finding) && finding.accepted === undefined)
    .filter(({ place }) => place.placements?.includes(placement.id) || place.terminals?.some((key) => key.startsWith(`${placement.id}:`)))
    .map((finding) => ({ words: describeFinding(plan, sheets, finding).title, weight: LEVEL_WEIGHT[finding.level] }));
}

function fromWires(plan: Plan, sheets: Sheets, placement: Placement): readonly Cause[] {
  const items = terminalsOf(plan, placement, sheets);
  const causes: Cause[] = [];
  const open = items.filter((t) => t.terminal.need === 'needed' && !t.wire && !t.carries);
  if (open.length > 0)
    causes.push({ words: `${open.map((t) => t.terminal.label).join(', ')} not wired in the plan`, weight: WEIGHT.unwired });
  const started = Object.keys(plan.ticks).length > 0;
  const undone = started && !placement.onBoard ? items.filter((t) => t.wire && !sameEnd(plan.ticks[t.key], t.wire.end)) : [];
  if (undone.length > 0) {
    const supplies = undone.filter((t) => t.terminal.role === 'ground' || t.terminal.role.startsWith('supply'));
    const named = supplies.length > 0 ? supplies : undone;
    causes.push({
      words: `${named.map((t) => t.terminal.label).join(', ')} not marked done on the build sheet`,
      weight: WEIGHT.unticked + (supplies.length > 0 ? 5 : 0),
    });
  }
  return causes;
}

const isLine = (kind: string) => (t: { readonly terminal: { readonly role: string } }) =>
  PIN_ROLES[t.terminal.role as keyof typeof PIN_ROLES]?.line?.kind === kind;

/** What is easily done wrong with this part as it is wired here. */
function fromWiring(plan: Plan, sheets: Sheets, placement: Placement): readonly Cause[] {
  const part = partSheetOrThrow(sheets, placement.sheet).sheet;
  const board = boardOf(plan, sheets);
  const items = terminalsOf(plan, placement, sheets).filter(has('wire'));
  const causes: Cause[] = [];
  const shifter = items.map((t) => throughPart(plan, sheets, t.key)).find((id) => id !== undefined);
  if (shifter !== undefined) {
    const name = plan.placements.find((p) => p.id === shifter)?.name ?? shifter;
    causes.push({ words: `${name} without one of its two supplies, or with its sides swapped`, weight: WEIGHT.shifter });
  }
  const rail = items.find((t) => t.terminal.role === 'supply.vcc')?.wire?.end;
  if (rail?.to === 'rail' && board && board.sheet.rails.list.length > 1) {
    const label = board.sheet.rails.list.find((r) => r.id === rail.rail)?.label ?? rail.rail;
    causes.push({ words: `supply not on ${label}: measure it at the part`, weight: WEIGHT.rail });
  }
  if (items.filter(isLine('i2c')).length >= 2 && !part.firstLight.causes.some((c) => /swap/i.test(c)))
    causes.push({ words: 'SDA and SCL swapped', weight: WEIGHT.swapped });
  const serial = items.filter(isLine('uart'));
  if (serial.length >= 2) causes.push({ words: 'TX and RX not crossed: TX of one side goes to RX of the other', weight: WEIGHT.swapped });
  if ((part.bus.devices ?? []).some((d) => d.addresses.length > 1) && items.some(isLine('i2c')))
    causes.push({ words: 'address differs from the plan: scan the bus', weight: WEIGHT.address });
  if (items.some((t) => t.wire.end.to === 'pin'))
    causes.push({ words: 'a wire one header position off: count from both ends', weight: WEIGHT.position });
  return causes;
}

/** The first-light list of a plan: supplies first, as nothing works without, then part by part in the order of the plan. */
export function firstLights(plan: Plan, sheets: Sheets): readonly FirstLight[] {
  const gives = ({ sheet }: Placement) => Number(partSheet(sheets, sheet)?.sheet.supplies !== undefined);
  const inOrder = plan.placements.toSorted((a, b) => gives(b) - gives(a));
  return inOrder.flatMap((placement): FirstLight[] => {
    const part = partSheet(sheets, placement.sheet)?.sheet;
    if (!part) return [];
    const own = part.firstLight.causes.map((words, at): Cause => ({ words, weight: WEIGHT.sheet - at * 3 }));
    const twins = part.twins
      .slice(0, 1)
      .map((twin): Cause => ({ words: `different variant: ${twin.what} (${twin.tell})`, weight: WEIGHT.shared }));
    const all = [
      ...fromFindings(plan, sheets, placement),
      ...fromWires(plan, sheets, placement),
      ...own,
      ...fromWiring(plan, sheets, placement),
      ...twins,
    ];
    return [
      {
        placement: placement.id,
        see: sightOf(plan, sheets, placement),
        causes: all.toSorted((a, b) => b.weight - a.weight),
        seen: plan.steps[lightStep(placement.id)] !== undefined,
      },
    ];
  });
}

/** The build step that marks a part as working. */
export const lightStep = (placement: string): string => `light:${placement}`;
/** The step that marks a device as found at an address. */
export const foundStep = (placement: string, device: string): string => `found:${placement}:${device}`;
