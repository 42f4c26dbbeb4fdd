import { counted } from '../quantity/format';
import type { Costs } from '../assign/model/instance';

/** Costs in words, tier by tier; what is zero is left out.
 *  @example sayCosts({ unwired: 0, moved: 2, caution: 1, unusual: 0, waste: 40 }) // '2 wires moved, 1 pin with caveats, scarce pins used (40)' */
export function costText(costs: Costs): string {
  const words = [
    costs.unwired === 0 ? '' : `${counted(costs.unwired, 'terminal', 'terminals')} unconnected`,
    costs.moved === 0 ? '' : `${counted(costs.moved, 'wire', 'wires')} moved`,
    costs.caution === 0 ? '' : `${counted(costs.caution, 'pin')} with caveats`,
    costs.unusual === 0 ? '' : 'not the usual pins',
    costs.waste === 0 ? '' : `scarce pins used (${costs.waste})`,
  ].filter(Boolean);
  return words.length > 0 ? words.join(', ') : 'no compromises';
}
