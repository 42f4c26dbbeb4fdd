import type { Finding } from '@roof-chart/core/checks/engine/check';

/** The view that shows best what a finding is about, as the end of its address: the sheet of its bus, its own view, else the Chart.
 *  @example findingView(finding) // 'buses/i2c0' */
export function findingView({ place }: Pick<Finding, 'place'>): string {
  return place.view ?? (place.bus === undefined ? 'chart' : `buses/${place.bus}`);
}
