import { planState, type PlanState } from '@roof-chart/core/outputs/planState';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';

/** A list is not held up for longer than this, in milliseconds; what is missing is there the next time. */
const BUDGET_MS = 200;

/** The states of listed plans: each is worked out once per revision, between other requests. */
export class PlanStates {
  #sheets: Sheets | undefined;
  readonly #known = new Map<string, { readonly revision: number; readonly state: PlanState | undefined }>();

  /** @param read gives a plan; undefined for one that cannot be read
   *  @returns by plan, those that are known within the budget */
  async of(
    plans: readonly { readonly id: string; readonly revision: number }[],
    sheets: Sheets,
    read: (id: string) => Plan | undefined,
  ): Promise<ReadonlyMap<string, PlanState>> {
    if (this.#sheets !== sheets) this.#known.clear();
    this.#sheets = sheets;
    const end = performance.now() + BUDGET_MS;
    for (const { id, revision } of plans) {
      if (this.#known.get(id)?.revision === revision) continue;
      if (performance.now() > end) break;
      const plan = read(id);
      this.#known.set(id, { revision, state: plan && planState(plan, sheets) });
      await new Promise((resolve) => setImmediate(resolve));
    }
    return new Map(
      plans.flatMap(({ id, revision }) => {
        const known = this.#known.get(id);
        return known?.revision === revision && known.state ? [[id, known.state] as const] : [];
      }),
    );
  }
}
