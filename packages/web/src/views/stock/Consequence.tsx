import { describeFinding, describeFix } from '@roof-chart/core/text/describe';
import { listText, placementText, terminalText } from '@roof-chart/core/text/names';
import type { Plan } from '@roof-chart/core/plan/plan';
import { counted } from '@roof-chart/core/quantity/format';
import type { CompleteAddition } from '@roof-chart/core/review/additionNeeds';
import { needsText } from '@roof-chart/core/text/needsText';
import { useWorkbench } from '../../state/workbench';
import styles from './Stock.module.css';

/** "fits, needs 2 pins" or the first finding it would cause: shown before the part is added. */
export function Consequence({ plan, addition }: { readonly plan: Plan; readonly addition: CompleteAddition | undefined }) {
  const { sheets } = useWorkbench();
  if (!addition) return <span className="quiet">checking the fit…</span>;
  const taken = addition.pins === 0 ? 'no additional pins' : `needs ${counted(addition.pins, 'pin')}`;
  const pins = addition.after === undefined ? taken : `next in the chain after ${placementText(plan, addition.after)}, ${taken}`;
  if (addition.needs?.left.length === 0)
    return (
      <span className={styles.fits}>
        fits with {needsText(addition.needs)}; {pins}
      </span>
    );
  const [left] = addition.needs?.left ?? [];
  if (addition.needs && left)
    return (
      <span className={left.level === 'clash' ? styles.meets : styles.risks}>
        with {needsText(addition.needs)}: {describeFinding(addition.needs.plan, sheets, left).title}; {pins}
      </span>
    );
  // Notes are no reason to choose another part.
  const grave = addition.added.filter((finding) => finding.level !== 'hint');
  const [first] = grave;
  const notes = addition.added.length - grave.length;
  const moves = addition.moved.length > 0 ? `; moves ${listText(addition.moved.map((key) => terminalText(plan, sheets, key)))}` : '';
  if (!first)
    return (
      <span className={moves ? styles.risks : styles.fits}>
        fits, {pins}
        {moves}
        {notes > 0 && `; ${counted(notes, 'note')}`}
      </span>
    );
  const remedy = first.remedies[0];
  const more = grave.length > 1 ? ` (+${grave.length - 1} more)` : '';
  return (
    <span className={first.level === 'clash' ? styles.meets : styles.risks}>
      {describeFinding(addition.plan, sheets, first).title}
      {more}; {pins}
      {moves}
      {remedy && <span className={styles.then}>. Fix: {describeFix(addition.plan, sheets, first.code, remedy)}</span>}
    </span>
  );
}
