import { sayFinding, sayTerminal } from '@roof-chart/core/checks/say';
import { TRANSISTOR_WORDS } from '@roof-chart/core/checks/transistors';
import type { Plan, Readout } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import type { Preview } from '@roof-chart/core/review/previewEdits';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { endWords } from '../app/editWords';

/** One changed wire in words.
 *  @example 'Status LED anode: GP22 → GP2' */
export function wireWords(plan: Plan, sheets: Sheets, wire: Preview['wires'][number]): string {
  const say = (end: typeof wire.from) => (end ? endWords(plan, sheets, end) : 'open');
  return `${sayTerminal(plan, sheets, wire.terminal)}: ${say(wire.from)} → ${say(wire.to)}`;
}

export interface PreviewWords {
  readonly wires: readonly string[];
  readonly jumpers: number;
  readonly others: readonly string[];
  readonly solved: readonly string[];
  readonly caused: readonly string[];
}

/** Parts that come, pull-ups that are cut, resistors that are put in, and settings of buses that differ between two plans. */
function otherChanges(before: Plan, after: Plan, sheets: Sheets): readonly string[] {
  const was = new Map(before.placements.map((p) => [p.id, p]));
  const parts = after.placements.flatMap((p) => {
    const old = was.get(p.id);
    if (!old) return [`${p.name} is added`];
    return old.pullUpsCut === p.pullUpsCut ? [] : [`pull-ups of ${p.name} ${p.pullUpsCut ? 'cut' : 'put back'}`];
  });
  const pulls = Object.entries(after.pulls)
    .filter(([key, pull]) => JSON.stringify(before.pulls[key]) !== JSON.stringify(pull))
    .map(
      ([key, { ohms, to }]) =>
        `${formatSi(ohms, 'Ω')} from ${sayTerminal(after, sheets, key)} to ${to === 'supply' ? 'the supply' : 'ground'}`,
    );
  const series = Object.entries(after.series)
    .filter(([key, ohms]) => before.series[key] !== ohms)
    .map(([key, ohms]) => `${formatSi(ohms, 'Ω')} in the wire of ${sayTerminal(after, sheets, key)}`);
  const drivers = Object.entries(after.drivers)
    .filter(([key, driver]) => JSON.stringify(before.drivers[key]) !== JSON.stringify(driver))
    .map(([key, { kind, ohms }]) => `${TRANSISTOR_WORDS[kind]} with ${formatSi(ohms, 'Ω')} at ${sayTerminal(after, sheets, key)}`);
  const segments = new Set([...Object.keys(before.busSettings), ...Object.keys(after.busSettings)]);
  const settings = [...segments].flatMap((id) => {
    const [old, now] = [before.busSettings[id] ?? {}, after.busSettings[id] ?? {}];
    return [
      ...(old.hz === now.hz ? [] : [now.hz === undefined ? 'clock as fast as all allow' : `clock ${formatSi(now.hz, 'Hz')}`]),
      ...(old.addedOhms === now.addedOhms
        ? []
        : [now.addedOhms === undefined ? 'added resistors taken away' : `${formatSi(now.addedOhms, 'Ω')} added on each line`]),
    ];
  });
  const pictures = Object.entries(after.readouts)
    .filter(([id, readout]) => JSON.stringify(before.readouts[id]) !== JSON.stringify(readout))
    .map(([id, readout]) => `${was.get(id)?.name ?? id}: ${readoutChange(before.readouts[id] ?? {}, readout)}`);
  const ladders = Object.entries(after.ladders)
    .filter(([id, ladder]) => JSON.stringify(before.ladders[id]) !== JSON.stringify(ladder))
    .map(
      ([id, { pull, row }]) => `${was.get(id)?.name ?? id}: ${[pull, ...row].map((ohms) => formatSi(ohms, 'Ω')).join(', ')} as its ladder`,
    );
  const capacitors = Object.keys(after.capacitors)
    .filter((id) => !before.capacitors[id])
    .map((id) => `capacitors beside ${was.get(id)?.name ?? id}`);
  const rates = Object.entries(after.rates)
    .filter(([id, rate]) => before.rates[id] !== rate)
    .map(([id, rate]) => `${was.get(id)?.name ?? id} asked ${rate} times a second`);
  return [...parts, ...series, ...drivers, ...pulls, ...settings, ...capacitors, ...ladders, ...pictures, ...rates];
}

function readoutChange(before: Readout, after: Readout): string {
  if (after.picture !== before.picture) return after.picture === 'part' ? 'its picture in parts' : 'its picture kept as usual';
  if (after.scroll !== before.scroll) return after.scroll ? 'its text runs through' : 'its text stands still';
  if (after.pictures?.length !== before.pictures?.length) return 'a picture less';
  return `letters ${after.scale ?? 1} times the smallest`;
}

/** What edits would change and what that costs, in words. */
export function previewWords(before: Plan, sheets: Sheets, preview: Preview): PreviewWords {
  const jumpers = preview.plan.placements.filter(
    (p) => JSON.stringify(p.straps) !== JSON.stringify(before.placements.find((b) => b.id === p.id)?.straps),
  ).length;
  return {
    wires: preview.wires.map((wire) => wireWords(preview.plan, sheets, wire)),
    jumpers,
    others: otherChanges(before, preview.plan, sheets),
    solved: preview.gone.map((finding) => sayFinding(before, sheets, finding).title),
    caused: preview.added.map((finding) => sayFinding(preview.plan, sheets, finding).title),
  };
}
