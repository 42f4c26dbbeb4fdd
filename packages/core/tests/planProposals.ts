import { createHash } from 'node:crypto';
import { alternativesOf, conflictOf } from '../src/assign/explain';
import { buildInstance } from '../src/assign/model/buildInstance';
import type { Finding } from '../src/checks/engine/check';
import { segmentTable } from '../src/displays/segmentTable';
import { findBuses } from '../src/nets/buses';
import { otherEnds } from '../src/nets/otherEnds';
import { planTerminals } from '../src/nets/terminals';
import { boardOf, partOf } from '../src/plan/edit';
import type { Plan } from '../src/plan/plan';
import { completeAddition, completeVerdict } from '../src/review/additionNeeds';
import { boardFit } from '../src/review/boardFit';
import { busPlaces } from '../src/review/busPlaces';
import { clearAddresses } from '../src/review/clearAddresses';
import { ledWays } from '../src/review/ledWays';
import { compareForms } from '../src/review/variants';
import { waysOut } from '../src/review/ways/waysOut';
import type { Sheets } from '../src/sheets/sheetIndex';

const LIMIT = { nodes: 400 };

/** A number from a text, the same on every machine. */
const drawnBy = (text: string): number => createHash('sha256').update(text).digest().readUInt32BE();

/** Whether a plan of the corpus is one of the third whose proposals are written out: they take longer than all the rest of it. */
export const hasProposals = (plan: Plan): boolean => drawnBy(plan.name) % 3 === 0;

const codes = (findings: readonly Finding[]) => findings.map(({ level, code, message }) => `${level} ${code}/${message}`).toSorted();

/** What the core proposes for a plan, as names and values: other places of its buses, other pins of a signal, other forms of a part, parts
 *  that are added, other boards, ways out. */
export function planProposals(plan: Plan, sheets: Sheets): readonly (readonly [name: string, value: unknown])[] {
  const board = boardOf(plan, sheets)!;
  const nth = <T>(list: readonly T[], what: string): T | undefined => list[drawnBy(`${plan.name} ${what}`) % Math.max(1, list.length)];
  const terminals = planTerminals(plan, sheets);
  const places = findBuses(plan, sheets).flatMap((bus) => {
    const found = busPlaces(plan, sheets, bus.id);
    return (found?.places ?? []).map(({ title, edits, added, gone, ...place }) => [
      `${bus.id} to ${title}`,
      { ...place, edits: edits.length, added: codes(added), gone: codes(gone), now: found!.now, blocked: found!.blocked },
    ]);
  });
  const wired = nth(
    terminals.filter(({ wire, placement }) => wire?.end.to === 'pin' && !placement.onBoard),
    'signal',
  );
  const open = nth(
    terminals.filter(({ wire }) => !wire),
    'open',
  );
  const forms = plan.placements
    .slice(0, 2)
    .flatMap(({ id }) =>
      (compareForms(plan, sheets, id) ?? []).map(({ part, edits, added, gone, ...row }) => [
        id,
        part.id,
        { ...row, edits: edits.length, added: codes(added), gone: codes(gone) },
      ]),
    );
  const newcomers = ['a', 'b'].map((what) => nth([...sheets.parts.values()], what)!.sheet);
  const additions = newcomers.flatMap((part) => {
    const found = completeAddition(plan, sheets, part);
    if (!found) return [];
    const { needs, pins, moved, open: left, proved, edits } = found;
    const more = needs && { ...needs, edits: needs.edits.length, plan: undefined, left: codes(needs.left) };
    return [[part.id, completeVerdict(found), { pins, moved, left, proved, edits, added: codes(found.added), needs: more }]];
  });
  const other = nth([...sheets.boards.keys()], 'board')!;
  const fit = boardFit(plan, sheets, other, LIMIT);
  const conflict = conflictOf(buildInstance(plan, sheets, board), LIMIT);
  const addressed = findBuses(plan, sheets).filter(({ kind }) => kind === 'i2c');
  return [
    ['place', places],
    ['other pins', wired && [wired.key, alternativesOf(plan, sheets, wired.key, LIMIT)]],
    ['other ends', open && [open.key, otherEnds(plan, sheets, open)]],
    ['form', forms],
    ['addition', additions],
    ['board', fit && [other, { ...fit, plan: undefined, edits: fit.edits.length, findings: codes(fit.findings) }]],
    ['conflict', conflict],
    ['way out', conflict ? waysOut(plan, sheets, LIMIT).map(({ plan: _plan, ...way }) => way) : []],
    ['addresses', addressed.map((bus) => clearAddresses(plan, sheets, bus))],
    [
      'segments',
      plan.placements.flatMap((placement) => {
        const isBare = partOf(plan, placement.id, sheets)?.sheet.polarity !== undefined;
        if (!isBare) return [];
        const table = segmentTable(plan, sheets, placement.id);
        const ways = ledWays(plan, sheets, placement).map(({ edits, ...way }) => ({ ...way, edits: edits.length }));
        return [[placement.id, table && { bits: table.bits, digits: table.digits, walk: table.walk }, ways]];
      }),
    ],
  ];
}
