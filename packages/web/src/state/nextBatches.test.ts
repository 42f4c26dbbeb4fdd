import { PLAN_LIMITS } from '@roof-chart/core/plan/plan';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Batch } from './documentSlice';
import { nextBatches } from './planRequests';

const rename: Edit = { kind: 'rename-plan', name: 'x' };
const batch = (id: number, edits: number, name = 'x'): Batch => ({ id: String(id), edits: Array<Edit>(edits).fill({ ...rename, name }) });
const taken = (...waiting: readonly Batch[]) => nextBatches(waiting).map(({ id }) => id);

test('one request has as many edits as the server takes, and at least one batch', () => {
  const most = PLAN_LIMITS.editsPerBatch;
  expect(taken(batch(1, most - 1), batch(2, 1), batch(3, 1))).toEqual(['1', '2']);
  expect(taken(batch(1, most - 1), batch(2, 2))).toEqual(['1']);
  expect(taken(batch(1, most + 1), batch(2, 1))).toEqual(['1']);
  expect(taken()).toEqual([]);
});

test('one request has at most 400 batches and one and a half million characters', () => {
  expect(nextBatches(Array.from({ length: 401 }, (_, at) => batch(at, 0)))).toHaveLength(400);
  // {"kind":"rename-plan","name":"…"} in brackets.
  const around = JSON.stringify([{ ...rename, name: '' }]).length;
  const long = (id: number, characters: number) => batch(id, 1, 'y'.repeat(characters - around));
  expect(taken(long(1, 1_000_000), long(2, 500_000))).toEqual(['1', '2']);
  expect(taken(long(1, 1_000_000), long(2, 500_001))).toEqual(['1']);
});
