import { firstOrThrow } from '../../collections/orThrow';
import { describeFinding } from '../describe';
import { listText, placementText, terminalText } from '../names';
import type { Plan } from '../../plan/plan';
import { counted, formatBytes } from '../../quantity/format';
import type { CompleteAddition } from '../../review/additionNeeds';
import { needsText } from '../needsText';
import type { BoardFit } from '../../review/boardFit';
import type { Sheets } from '../../sheets/sheetIndex';

/** What a board's fit comes to, in a few words. */
export function boardVerdict(fit: BoardFit): string {
  const clashes = fit.findings.filter((f) => f.level === 'clash').length;
  const risks = fit.findings.filter((f) => f.level === 'risk').length;
  switch (fit.verdict) {
    case 'fits':
      return risks > 0 ? `Fits, ${counted(risks, 'warning')}` : 'Fits';
    case 'clashes':
      return clashes > 0 ? `Pins fit, ${counted(clashes, 'error')}` : 'Pins fit, RAM does not';
    case 'unknown':
      return `${counted(fit.open.length, 'terminal')} unconnected so far`;
    case 'open':
      return `${counted(fit.open.length, 'terminal')} cannot be connected`;
  }
}

/** What changing to a board would do, sentence by sentence.
 *  @param plan the plan as it is now */
export function switchText(plan: Plan, fit: BoardFit, sheets: Sheets): readonly string[] {
  const wires = Object.keys(plan.wires).length;
  const lines: string[] = [];
  if (fit.open.length > 0) {
    const names = listText(fit.open.slice(0, 6).map((key) => terminalText(fit.plan, sheets, key)));
    const more = fit.open.length > 6 ? ` and ${fit.open.length - 6} more` : '';
    lines.push(
      fit.verdict === 'open'
        ? `Proved: ${counted(fit.open.length, 'required terminal')} cannot be connected. In the best assignment: ${names}${more}.`
        : `Best assignment found so far leaves ${names}${more} unconnected; not proved optimal.`,
    );
  }
  if (fit.memory.neededBytes > 0)
    lines.push(`Frame buffers use ${formatBytes(fit.memory.neededBytes)} of ${formatBytes(fit.memory.ramBytes)} RAM.`);
  if (fit.costs.caution > 0) lines.push(`Uses ${counted(fit.costs.caution, 'pin')} with caveats.`);
  if (wires > 0) lines.push(`${fit.kept} of ${counted(wires, 'wire')} keep their pins; names, jumpers and colours are kept.`);
  if (fit.lostLocks.length > 0)
    lines.push(
      `Locks removed: ${listText(fit.lostLocks.map((key) => terminalText(plan, sheets, key)))}; the pin does not exist on that board.`,
    );
  if (fit.left.length > 0) lines.push(`Stays on the present board: ${listText(fit.left.map((id) => placementText(plan, id)))}.`);
  return lines;
}

/** What adding a part would do, in one line. */
export function partText(plan: Plan, addition: CompleteAddition, sheets: Sheets): string {
  const pins = addition.pins <= 0 ? 'no additional pins' : counted(addition.pins, 'pin');
  const { length } = addition.moved;
  const names = addition.moved.slice(0, 3).map((key) => terminalText(plan, sheets, key));
  const moved = length > 0 ? `moves ${listText(names)}${length > 3 ? ` and ${length - 3} more` : ''}` : '';
  if (addition.needs?.left.length === 0) return [`with ${needsText(addition.needs)}`, pins].join(', ');
  const grave = addition.added.filter((finding) => finding.level !== 'hint');
  if (grave.length > 0) {
    const more = grave.length > 1 ? ` (+${grave.length - 1} more)` : '';
    return [`${describeFinding(addition.plan, sheets, firstOrThrow(grave)).title}${more}`, moved].filter(Boolean).join('; ');
  }
  return [pins, moved].filter(Boolean).join(', ');
}
