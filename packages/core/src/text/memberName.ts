import type { Plan } from '../plan/plan';

/** Who a pull-up belongs to, or a row of a bus. */
export const nameOf = (plan: Plan, id: string): string =>
  plan.placements.find((p) => p.id === id)?.name ?? (id === 'board' ? 'Board, fixed' : id === 'internal' ? 'Board, internal' : 'Added');
