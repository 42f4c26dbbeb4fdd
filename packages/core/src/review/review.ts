import { findOrThrow, orThrow } from '../collections/orThrow';
import { lazy } from '../memo/lazy';
import { memoizeByObject } from '../memo/memoizeByObject';
import { notedSheets } from '../sheets/notedSheets';
import type { Sheets } from '../sheets/sheetIndex';
import {
  type Check,
  type CheckContext,
  type Finding,
  type FindingDraft,
  type Level,
  LEVELS,
  type Place,
  type Remedy,
} from '../checks/engine/check';
import { checkFailed, failureDraft } from '../checks/engine/checkFailed';
import { CHECKS } from '../checks/engine/registry';
import { findBuses, type Bus } from '../nets/buses';
import { memoizeByPair } from '../memo/memoizeByPair';
import { findNets } from '../nets/nets';
import { planTerminals } from '../nets/terminals';
import { applyEdits } from '../plan/applyEdits';
import { boardOf } from '../plan/edit';
import { connectedComponents } from '../nets/connectedComponents';
import { shortPlace } from '../plan/findingPlace';
import type { Plan } from '../plan/plan';
import { busLedgers, ledgersOf, type Ledgers } from './ledgers';

/** Everything derived from a plan at one moment. */
export interface Review {
  readonly findings: readonly Finding[];
  readonly buses: readonly Bus[];
  readonly ledgers: Ledgers;
}

export type ReviewResult =
  | { readonly ok: true; readonly review: Review }
  | { readonly ok: false; readonly missing: { readonly kind: 'board' | 'part'; readonly id: string } };

/** A place as written in the id of a finding. */
function placeKey(place: Place): string {
  // Rails and channels came later: places without keep the keys that they had.
  const later = [
    ...(place.rails ? [place.rails] : []),
    ...(place.channel === undefined ? [] : [[`channel-${place.channel}`]]),
    ...(place.check === undefined ? [] : [[place.check]]),
  ];
  const lists = [place.pins, place.placements, place.terminals, ...later];
  const whole = lists.map((ids) => (ids ?? []).join(',')).join('|');
  return shortPlace(whole);
}

/** Completes finding drafts with their code; an unknown text key is a bug in the check. */
function finish(check: Check, draft: FindingDraft, context: CheckContext): Finding {
  if (!check.messages[draft.message]) throw new Error(`${check.code} has no message ${draft.message}`);
  const id = idOf(check, draft);
  const reason = context.plan.accepted[id];
  const remedies = lazy(() => remediesOf(check, id, context));
  return {
    ...draft,
    code: check.code,
    id,
    ...(reason !== undefined && { [draft.level === 'clash' ? 'acceptedBefore' : 'accepted']: reason }),
    ...(check.about && { about: check.about }),
    get remedies() {
      return remedies();
    },
  };
}

const idOf = (check: Check, { message, place }: FindingDraft): string => `${check.code}/${message}/${placeKey(place)}`;

/** Remedies are found in the whole plan, wherever the finding was: only there it is known which pins are free. One that would not apply,
 *  or would leave its finding standing, is not offered: what a check proposes is a guess until it was tried (decision 11). */
function remediesOf(check: Check, id: string, context: CheckContext): readonly Remedy[] {
  const remedies = findOrThrow(wholeDrafts(check, context), (draft) => idOf(check, draft) === id).remedies();
  const unknown = remedies.find(({ label }) => !check.remedies[label]);
  if (unknown) throw new Error(`${check.code} has no fix ${unknown.label}`);
  return remedies.filter((remedy) => keepsWord(check, id, context, remedy));
}

function keepsWord(check: Check, id: string, { plan, sheets }: CheckContext, { edits }: Remedy): boolean {
  const result = applyEdits(plan, edits, sheets);
  const after = result.ok ? contextOf(result.plan, sheets) : undefined;
  if (!after) return false;
  const looked = check.planWide ? [after] : componentContexts(after);
  if (looked.some((one) => wholeDrafts(check, one).some((draft) => idOf(check, draft) === id))) return false;
  // What is wired for the first time shows what it meets: that is no harm of the wire.
  if (check.code === 'terminal-unwired') return true;
  const before = harms(orThrow(contextOf(plan, sheets), 'board sheet'));
  return [...harms(after)].every((harm) => before.has(harm) || harm.startsWith(`${check.code}/`));
}

const HARMFUL = CHECKS.filter((check) => check.harm);

/** What is damaged or set against each other in a plan, as ids of findings: voltages and currents above their limits, pins used twice. */
const harms = memoizeByObject((context: CheckContext): ReadonlySet<string> => {
  const components = componentContexts(context).map((component) => componentDrafts(HARMFUL, component));
  return new Set(
    HARMFUL.flatMap((check) => {
      const found = check.planWide ? wholeDrafts(check, context) : components.flatMap((component) => component.get(check) ?? []);
      return found.flatMap((draft) => (draft.level === 'hint' ? [] : [idOf(check, draft)]));
    }),
  );
});

/** What a check drafts is made once for a context. */
const drafts = new WeakMap<CheckContext, Map<Check, readonly FindingDraft[]>>();

/** What checks find on a component, by check; those that find nothing are left out. */
type ComponentDrafts = ReadonlyMap<Check, readonly FindingDraft[]>;

const ofComponents = new WeakMap<readonly Check[], WeakMap<CheckContext, ComponentDrafts>>();

/** All that a list of checks finds on a component, remembered as one: of most components nothing changes from one plan to the next. */
function componentDrafts(checks: readonly Check[], component: CheckContext): ComponentDrafts {
  let known = ofComponents.get(checks);
  if (!known) ofComponents.set(checks, (known = new WeakMap<CheckContext, ComponentDrafts>()));
  let found = known.get(component);
  if (!found) {
    found = new Map(
      checks
        .filter((check) => !check.planWide)
        .map((check) => [check, wholeDrafts(check, component)] as const)
        .filter(([, own]) => own.length > 0),
    );
    known.set(component, found);
  }
  return found;
}

function wholeDrafts(check: Check, context: CheckContext): readonly FindingDraft[] {
  let of = drafts.get(context);
  if (!of) drafts.set(context, (of = new Map<Check, readonly FindingDraft[]>()));
  let found = of.get(check);
  if (!found) of.set(check, (found = examined(check, context)));
  return found;
}

/** Why checks failed on a context, by code. */
const failures = new WeakMap<CheckContext, Map<string, string>>();

const reasonOf = (error: unknown): string => (error instanceof Error ? error.message : String(error)).slice(0, 200);

/** What a check finds; one that throws finds nothing here, and that it failed is noted for the review. */
function examined(check: Check, context: CheckContext): readonly FindingDraft[] {
  try {
    return check.examine(context);
  } catch (error) {
    const known = failures.get(context) ?? new Map<string, string>();
    failures.set(context, known.set(check.code, reasonOf(error)));
    return [];
  }
}

/** One finding for each check that failed somewhere. */
function failureFindings(contexts: readonly CheckContext[]): readonly Finding[] {
  const failed = new Map(contexts.flatMap((context) => [...(failures.get(context) ?? [])]));
  return [...failed].map(([code, reason]) => {
    const draft = failureDraft(code, reason);
    return { ...draft, code: checkFailed.code, id: idOf(checkFailed, draft), remedies: [] };
  });
}

/** The contexts of a plan's components; the plan's own where it is one. */
function componentContexts(context: CheckContext): readonly CheckContext[] {
  const components = connectedComponents(context.plan, context.sheets);
  return components.length < 2 ? [context] : components.map((component) => orThrow(contextMade(component, context.sheets), 'board sheet'));
}

/** Every finding of every check, gravest first, in registry order within a level; accepted ones last. Most checks look at the components of the
 *  plan one by one, so that what was found on one stays as long as nothing changes there. */
export function runChecks(context: CheckContext, checks: readonly Check[] = CHECKS): readonly Finding[] {
  const contexts = componentContexts(context);
  const components = contexts.map((component) => componentDrafts(checks, component));
  const found = checks.flatMap((check) => {
    const own = check.planWide ? wholeDrafts(check, context) : components.flatMap((component) => component.get(check) ?? []);
    return own.map((draft) => finish(check, draft, context));
  });
  const rank = (level: Level) => LEVELS.indexOf(level);
  const isAccepted = (finding: Finding) => Number(finding.accepted !== undefined);
  return [...found, ...failureFindings([...new Set([...contexts, context])])].toSorted(
    (a, b) => isAccepted(a) - isAccepted(b) || rank(a.level) - rank(b.level),
  );
}

/** What checks and views look at, made once for a plan and its sheets; these are those with the plan's bench notes. */
export function contextOf(plan: Plan, kept: Sheets): CheckContext | undefined {
  return contextMade(plan, notedSheets(kept, plan.benchNotes));
}

const contextMade = memoizeByPair((plan: Plan, sheets: Sheets): CheckContext | undefined => {
  const nets = findNets(plan, sheets);
  const board = boardOf(plan, sheets);
  return board && { plan, sheets, board, nets, buses: findBuses(plan, sheets), terminals: planTerminals(plan, sheets) };
});

/** The findings of a plan; none where a sheet is gone. */
export const findingsOf: (plan: Plan, sheets: Sheets) => readonly Finding[] = memoizeByPair((plan, sheets) => {
  const context = plan.placements.every((p) => sheets.parts.has(p.sheet.id)) ? contextOf(plan, sheets) : undefined;
  return context ? runChecks(context) : [];
});

const PLAN_CHECKS = CHECKS.filter((check) => check.about !== 'facts');

/** The findings of a plan, except those about its sheets. */
export const planFindingsOf: (plan: Plan, sheets: Sheets) => readonly Finding[] = memoizeByPair((plan, sheets) => {
  const context = plan.placements.every((p) => sheets.parts.has(p.sheet.id)) ? contextOf(plan, sheets) : undefined;
  return context ? runChecks(context, PLAN_CHECKS) : [];
});

/** The review of a plan: a pure function of plan and sheets.
 *  A sheet that is gone is a normal outcome and named; nothing is guessed in its place. */
export const reviewPlan: (plan: Plan, sheets: Sheets) => ReviewResult = memoizeByPair((plan, sheets): ReviewResult => {
  const lost = plan.placements.find((p) => !sheets.parts.has(p.sheet.id));
  if (lost) return { ok: false, missing: { kind: 'part', id: lost.sheet.id } };
  const context = contextOf(plan, sheets);
  if (!context) return { ok: false, missing: { kind: 'board', id: plan.board.id } };
  return {
    ok: true,
    review: {
      findings: findingsOf(plan, sheets),
      buses: context.buses,
      ledgers: {
        ...ledgersOf(plan, context.sheets, context.board, context.nets),
        buses: busLedgers(plan, context.sheets, context.board, context.buses),
      },
    },
  };
});
