/** Under `npm run soak`. */
export const isSoak = process.env['ROOF_CHART_SOAK'] !== undefined;
const isMutation = process.env['ROOF_CHART_MUTATE'] !== undefined;
const SCALE = isSoak ? 10 : isMutation ? 0.2 : 1;

/** How often a property is tried: so often in `npm test`, ten times as often under `npm run soak`, a fifth as often on each mutant. */
export const runs = (count: number): number => Math.max(5, Math.round(count * SCALE));

/** How often a case must have come up, so that its property says something: scaled as `runs` is. Nothing is asked of the few runs on a mutant:
 *  chance would count as having noticed it. */
export const cases = (count: number): number => (isMutation ? -1 : count * SCALE);
