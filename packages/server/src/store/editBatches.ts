import { type Client, LABEL_LENGTH, type SentBatch } from '@roof-chart/api/editBatches';
import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import { changeText } from '@roof-chart/core/text/planChanges';
import type { Edit, EditProblem } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import { upgradeEdits } from '@roof-chart/core/plan/upgradePlan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { checksum } from './checksum';
import { BatchEntity, type BatchRow } from './rows';
import type { Statements } from './transactions';

/** The revision that a client saw, in which life of the database. */
export interface SeenRevision {
  readonly revision: number;
  readonly epoch: string;
}

export type BatchesOutcome =
  | { readonly kind: 'done'; readonly plan: Plan; readonly revision: number }
  | { readonly kind: 'stale' }
  /** The id of a batch that is in already came with other edits. */
  | { readonly kind: 'clash'; readonly at: number }
  /** The batches before this one are done. */
  | { readonly kind: 'refused'; readonly plan: Plan; readonly revision: number; readonly at: number; readonly problem: RefusedEdit };

export interface RefusedEdit {
  readonly edit: number;
  readonly problem: EditProblem;
}

/** What applying batches needs besides the batches. */
export interface BatchGround {
  readonly statements: Statements;
  readonly planId: string;
  readonly plan: Plan;
  readonly revision: number;
  readonly sheets: Sheets;
  readonly at: string;
}

/** Whether a logged batch is the one that was sent, written before an edit had its present name. */
const isInOldNames = ({ edits }: BatchRow, text: string): boolean =>
  edits !== '' && JSON.stringify(upgradeEdits(JSON.parse(edits) as readonly Edit[])) === text;

/** Applies batches in order and logs each with its inverse; stored batches are skipped. Does not store the plan itself. */
export function applyBatches(ground: BatchGround, seen: number, batches: readonly SentBatch[], client?: Client): BatchesOutcome {
  const { statements, planId, sheets, at } = ground;
  let { plan, revision } = ground;
  const looked = batches.map((sent) => {
    const text = JSON.stringify(sent.edits);
    return { sent, text, digest: checksum(text), taken: statements.first(BatchEntity, { planId, batch: sent.batch }) };
  });
  const clash = looked.findIndex(({ taken, digest, text }) => taken && taken.digest !== digest && !isInOldNames(taken, text));
  if (clash >= 0) return { kind: 'clash', at: clash };
  let expected = seen;
  for (const [n, { sent, text, digest, taken }] of looked.entries()) {
    if (taken) {
      expected = Math.max(expected, taken.revision);
      continue;
    }
    if (expected !== revision) return { kind: 'stale' };
    const result = applyEdits(plan, sent.edits, sheets);
    if (!result.ok) return { kind: 'refused', plan, revision, at: n, problem: { edit: result.at, problem: result.problem } };
    const label = sent.label ?? changeText(plan, result.plan, sheets).slice(0, LABEL_LENGTH);
    plan = result.plan;
    revision += 1;
    expected = revision;
    statements.insert(BatchEntity, {
      planId,
      batch: sent.batch,
      revision,
      edits: text,
      inverse: JSON.stringify(result.inverse),
      digest,
      label,
      device: client?.device ?? null,
      tab: client?.tab ?? null,
      at,
    } satisfies Omit<BatchRow, 'id'>);
  }
  // A repeated request: the revision is the one that its last batch made, whatever came after it.
  return { kind: 'done', plan, revision: Math.min(expected, revision) };
}
