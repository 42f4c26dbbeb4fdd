import { addressesOf } from '@roof-chart/core/nets/addresses';
import { terminalsOf } from '@roof-chart/core/nets/terminals';
import { endKey, type Plan, type WireEnd } from '@roof-chart/core/plan/plan';
import { formatAddress } from '@roof-chart/core/quantity/format';
import { boardSheet, type Sheets } from '@roof-chart/core/sheets/sheetIndex';

/** A wire end as the command line writes and reads it.
 *  @example endText({ to: 'rail', rail: '3v3' }) // 'rail:3v3' */
function endText(end: WireEnd | undefined): string {
  if (!end) return 'open';
  if (end.to === 'pin') return end.pin;
  if (end.to === 'rail') return `rail:${end.rail}`;
  if (end.to === 'trimmer' || end.to === 'divider') return endKey(end);
  return end.to === 'ground' ? 'ground' : `${end.placement}:${end.terminal}`;
}

/** A plan as text: parts in order, each with its terminals and where they go. */
export function planText(plan: Plan, sheets: Sheets): string {
  const board = boardSheet(sheets, plan.board)?.sheet.title ?? plan.board.id;
  const parts = plan.placements.map((placement) => {
    const addresses = addressesOf(plan, placement, sheets).map((a) => formatAddress(a.address));
    const wires = terminalsOf(plan, placement, sheets)
      .filter((t) => t.terminal.role !== 'external')
      .map((t) => `    ${t.terminal.label.padEnd(8)} ${endText(t.wire?.end)}${t.wire?.locked ? '  locked' : ''}`);
    return [
      `  ${placement.id}  ${placement.name}  (${placement.sheet.id})${addresses.length > 0 ? `  ${addresses.join(' ')}` : ''}`,
      ...wires,
    ].join('\n');
  });
  return [`${plan.name}, on ${board}`, ...parts].join('\n');
}
