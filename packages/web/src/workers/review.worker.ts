import { diagnose, faultBook, sureWires } from '@roof-chart/core/bench/diagnose';
import { readScan } from '@roof-chart/core/bench/scan';
import { type Clues, identify } from '@roof-chart/core/identify/identify';
import { matchWires, readWireList } from '@roof-chart/core/outputs/wireList';
import { readPinTable } from '@roof-chart/core/sheets/pinTable';
import type { Question } from '@roof-chart/core/bench/questions';
import { expose } from 'comlink';
import { type Alternative, alternativesOf, type Conflict, conflictOf } from '@roof-chart/core/assign/explain';
import type { InstanceScope } from '@roof-chart/core/assign/model/terminalsToPlace';
import type { Costs } from '@roof-chart/core/assign/model/instance';
import { type PreferenceCost, preferenceCosts } from '@roof-chart/core/assign/preferenceCost';
import { type WayOut, waysOut } from '@roof-chart/core/review/ways/waysOut';
import { assignPins, type PinAssignment } from '@roof-chart/core/assign/assignPins';
import { CALCULATIONS } from '@roof-chart/core/electrics/calculations/calculations';
import { type CalcResult, readValues } from '@roof-chart/core/electrics/calculations/calculation';
import type { Finding } from '@roof-chart/core/checks/engine/check';
import { notedSheets } from '@roof-chart/core/sheets/notedSheets';
import type { Plan } from '@roof-chart/core/plan/plan';
import { additionOf } from '@roof-chart/core/review/addition';
import { type HolePlacement, lockedWithoutRoom, placeHoles, type Scope } from '@roof-chart/core/outputs/holes/placeHoles';
import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import { addSeveral } from '@roof-chart/core/review/addSeveral';
import { duplicateOf } from '@roof-chart/core/review/duplicate';
import { completeAddition } from '@roof-chart/core/review/additionNeeds';
import { ledWays } from '@roof-chart/core/review/ledWays';
import { busPlaces } from '@roof-chart/core/review/busPlaces';
import { type BoardFit, boardFit } from '@roof-chart/core/review/boardFit';
import { type FixAlternative, fixAlternatives } from '@roof-chart/core/review/fixAlternatives';
import { fixSafe } from '@roof-chart/core/review/fixSafe';
import { previewEdits } from '@roof-chart/core/review/previewEdits';
import { reviewPlan } from '@roof-chart/core/review/review';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { indexSheets, type Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { readPlanText } from './planText';
import { type PartFit, partFitOf } from '@roof-chart/core/text/views/partFit';

let sheets: Sheets = indexSheets([]);
/** The newest version of each part. */
let parts: readonly PartSheet[] = [];
/** The plan that a row of questions is about: what was worked out for one of them serves the next. */
let held: { readonly key: number; readonly plan: Plan } | undefined;

function fitsOf(key: number, ids: readonly string[], add: typeof completeAddition): readonly PartFit[] {
  return ids.flatMap((id) => {
    const part = sheets.parts.get(id);
    if (!part || held?.key !== key) return [];
    const addition = add(held.plan, sheets, part.sheet);
    return addition ? partFitOf(held.plan, addition, sheets) : [];
  });
}

/** Where everything goes, or what is locked where it has no room. */
export type PlacedHoles = HolePlacement | { readonly locked: readonly string[] };

/** The reviewer: holds the sheets, answers for one plan at a time. */
export const reviewer = {
  load(list: readonly (BoardSheet | PartSheet)[]): void {
    sheets = indexSheets(list);
    parts = [...sheets.parts.values()].map(({ sheet }) => sheet);
  },
  hold(key: number, plan: Plan): void {
    held = { key, plan };
  },
  review: (plan: Plan) => reviewPlan(plan, sheets),
  /** What adding each of these parts would do, in their order; unknown ids are left out. */
  additions: (plan: Plan, parts: readonly string[]) =>
    parts.flatMap((id) => {
      const part = sheets.parts.get(id);
      return (part && completeAddition(plan, sheets, part.sheet)) ?? [];
    }),
  /** Several parts of one kind. */
  addSeveral: (plan: Plan, id: string, count: number) => {
    const part = sheets.parts.get(id);
    return part && addSeveral(plan, notedSheets(sheets, plan.benchNotes), part.sheet, count);
  },
  /** A second part like one of the plan. */
  duplicate: (plan: Plan, id: string) => duplicateOf(plan, notedSheets(sheets, plan.benchNotes), id),
  /** Where a bus of the plan can be put. */
  busPlaces: (plan: Plan, bus: string) => busPlaces(plan, sheets, bus),
  /** Adding a part on pins of its own, where it could follow a chain. */
  additionApart: (plan: Plan, id: string) => {
    const part = sheets.parts.get(id);
    return part && additionOf(plan, sheets, part.sheet, true);
  },
  /** Other ways to drive the bare LEDs of a part. */
  ledWays: (plan: Plan, id: string) => {
    const placement = plan.placements.find((p) => p.id === id);
    return placement ? ledWays(plan, notedSheets(sheets, plan.benchNotes), placement) : [];
  },
  /** Assigns pins within a time limit in milliseconds; with a conflict set if terminals remain unconnected.
   *  @param onBetter receives every better solution during the search */
  settle: (plan: Plan, milliseconds: number, scope: InstanceScope = {}, onBetter?: (costs: Costs) => void): Settled | undefined => {
    const noted = notedSheets(sheets, plan.benchNotes);
    const end = performance.now() + milliseconds;
    const stop = () => performance.now() >= end;
    const result = assignPins(plan, noted, { ...scope, stop, ...(onBetter ? { onBetter } : {}) });
    if (!result) return undefined;
    const conflict =
      result.costs.unwired > 0 ? conflictOf(result.instance, { stop: () => performance.now() >= end + milliseconds }) : undefined;
    const preview = previewEdits(plan, result.edits, sheets);
    const { edits, plan: after, costs, bound, proved, open } = result;
    const late = () => performance.now() >= end + milliseconds;
    return {
      wishes: preferenceCosts(plan, after, noted, { stop: late }),
      edits,
      plan: after,
      costs,
      bound,
      proved,
      open,
      conflict,
      added: preview.ok ? preview.preview.added : [],
      gone: preview.ok ? preview.preview.gone : [],
    };
  },
  /** Places on the breadboard, after some edits, or what is locked where it has no room.
   *  @returns edits that begin with those given */
  placeHoles: (plan: Plan, first: readonly Edit[], scope: Scope): PlacedHoles => {
    const begun = applyEdits(plan, first, notedSheets(sheets, plan.benchNotes));
    if (!begun.ok) return { locked: [] };
    // The first edits may state what a module measures.
    const noted = notedSheets(sheets, begun.plan.benchNotes);
    const found = placeHoles(begun.plan, noted, scope);
    return found ? { ...found, edits: [...first, ...found.edits] } : { locked: lockedWithoutRoom(begun.plan, noted) };
  },
  /** How the parts of the plan that is held fit on each board, as far as is found within the time for one; nothing once another plan
   *  is held. */
  boardFits: (key: number, boards: readonly string[]): readonly BoardFit[] =>
    boards.flatMap((board) => {
      const end = performance.now() + BOARD_LIMIT;
      return (held?.key === key && boardFit(held.plan, sheets, board, { stop: () => performance.now() >= end })) || [];
    }),
  /** In short what adding each of these parts to the plan that is held would do; nothing once another plan is held. */
  sweep: (key: number, ids: readonly string[]): readonly PartFit[] => fitsOf(key, ids, additionOf),
  /** As `sweep`, with what the parts need beside themselves: it takes several times as long. */
  sweepWithNeeds: (key: number, ids: readonly string[]): readonly PartFit[] => fitsOf(key, ids, completeAddition),
  /** Ways out of a plan in which something finds no place. */
  ways: (plan: Plan, milliseconds: number): readonly WayOut[] => {
    const end = performance.now() + milliseconds;
    return waysOut(plan, notedSheets(sheets, plan.benchNotes), { nodes: WAY_NODES, stop: () => performance.now() >= end });
  },
  /** Larger changes that a finding goes away with; none where it is not there any more. */
  fixAlternatives: (plan: Plan, id: string, milliseconds: number): readonly FixAlternative[] => {
    const end = performance.now() + milliseconds;
    const result = reviewPlan(plan, sheets);
    const finding = result.ok ? result.review.findings.find((one) => one.id === id) : undefined;
    return finding ? fixAlternatives(plan, sheets, finding, { nodes: ALTERNATIVE_NODES, stop: () => performance.now() >= end }) : [];
  },
  /** What each other pin for a terminal would cost. */
  alternatives: (plan: Plan, terminal: string): readonly Alternative[] => {
    const end = performance.now() + PINS_LIMIT;
    return alternativesOf(plan, notedSheets(sheets, plan.benchNotes), terminal, { stop: () => performance.now() >= end }) ?? [];
  },
  /** Runs a calculation, or returns what is wrong with its inputs.
   *  @param onProgress receives the progress of a long search in steps of 1 % */
  calculate: (id: string, given: { readonly [name: string]: string }, onProgress?: (share: number) => void): CalcResult | string => {
    const calculation = CALCULATIONS.find((c) => c.id === id);
    if (!calculation) return `${id}: unknown calculation`;
    try {
      let reported = 0;
      const report = (share: number) => {
        if (share < reported + 0.01) return;
        reported = share;
        onProgress?.(share);
      };
      return calculation.run(readValues(calculation, given), { sheets: () => sheets, onProgress: report });
    } catch (error) {
      if (error instanceof RangeError) return error.message;
      throw error;
    }
  },
  /** What is wrong with a bench, from what its probe answered to these questions, as far as it came. */
  diagnose(plan: Plan, questions: readonly Question[], answers: readonly (string | undefined)[]) {
    const book = faultBook(plan, sheets, questions);
    return { ...diagnose(book, answers), sure: sureWires(book, answers), planned: book.planned };
  },
  /** Pasted texts, however odd they are: read here, the page goes on and they can be stopped. */
  readScan: (text: string) => readScan(text),
  readWires: (plan: Plan, text: string) => matchWires(plan, notedSheets(sheets, plan.benchNotes), readWireList(text)),
  readPinTable: (text: string) => readPinTable(text),
  readPlanText,
  identify: (clues: Clues, most: number) => identify(parts, clues, most),
  fixSafe: (plan: Plan) => fixSafe(plan, sheets),
  preview: (plan: Plan, edits: readonly Edit[]) => previewEdits(plan, edits, sheets),
};

/** Time for one board of many, and for all pins of one wire, in milliseconds. */
const BOARD_LIMIT = 400;
const PINS_LIMIT = 5000;
/** Dozens of alternatives are tried, so each has a lower limit. */
const WAY_NODES = 800;
const ALTERNATIVE_NODES = 2000;

/** The result of pin assignment. */
export interface Settled extends Omit<PinAssignment, 'instance' | 'nodes'> {
  readonly wishes: readonly PreferenceCost[];
  readonly conflict: Conflict | undefined;
  readonly added: readonly Finding[];
  readonly gone: readonly Finding[];
}

export type Reviewer = typeof reviewer;

expose(reviewer);
