import { ActionIcon } from '@mantine/core';
import { IconTrash } from '@tabler/icons-react';
import { useMemo } from 'react';
import { formatAddress } from '@roof-chart/core/quantity/format';
import { findNets, type Nets } from '@roof-chart/core/nets/nets';
import { openTerminals } from '@roof-chart/core/nets/openTerminals';
import { terminalsOf } from '@roof-chart/core/nets/terminals';
import { addressesOf } from '@roof-chart/core/nets/addresses';
import type { Placement, Plan } from '@roof-chart/core/plan/plan';
import { EditableName } from '../../app/PlanName';
import { useWorkbench } from '../../app/workbench';
import styles from './Stock.module.css';

function PartRow({ plan, nets, placement }: { readonly plan: Plan; readonly nets: Nets; readonly placement: Placement }) {
  const { sheets, edit } = useWorkbench();
  const part = sheets.parts.get(placement.sheet.id)?.sheet;
  const addresses = addressesOf(plan, placement, sheets).map((a) => formatAddress(a.address));
  const needed = part?.terminals.list.filter((t) => t.need === 'needed') ?? [];
  const open = openTerminals(terminalsOf(plan, placement, sheets), nets).length;
  return (
    <li className={styles.placed}>
      <div className={styles.placedWords}>
        <EditableName
          name={placement.name}
          what="this part"
          className={styles.placedName!}
          onRename={(name) => edit([{ kind: 'rename-placement', placement: placement.id, name }], `rename ${placement.name} to ${name}`)}
        />
        <span className="quiet">{part?.title}</span>
        <span className={styles.placedFacts}>
          {addresses.length > 0 && <span className="mono">{addresses.join(' ')}</span>}
          {open > 0 ? (
            <span className={styles.open}>{open === needed.length ? 'not wired' : `${open} of ${needed.length} open`}</span>
          ) : (
            <span className={styles.done}>wired</span>
          )}
        </span>
      </div>
      <ActionIcon
        variant="subtle"
        color="gray"
        c="var(--quiet)"
        aria-label={`Remove ${placement.name}`}
        title="Remove (Undo brings it back)"
        onClick={() => edit([{ kind: 'remove-placement', placement: placement.id }], `remove ${placement.name}`)}
      >
        <IconTrash size={16} />
      </ActionIcon>
    </li>
  );
}

/** The parts of the plan. */
export function PartList({ plan }: { readonly plan: Plan }) {
  const { sheets } = useWorkbench();
  const nets = useMemo(() => findNets(plan, sheets), [plan, sheets]);
  return (
    <section className={styles.inPlan} aria-label="In this plan">
      <h2 className={styles.heading}>
        In this plan <span className="quiet num">{plan.placements.length}</span>
      </h2>
      {plan.placements.length === 0 && (
        <p className="quiet">
          Nothing yet. Find what lies on your bench in the list at the right and add it; its wires are proposed at once, and you can move
          them in the Chart.
        </p>
      )}
      <ul className={styles.list}>
        {plan.placements.map((placement) => (
          <PartRow key={placement.id} plan={plan} nets={nets} placement={placement} />
        ))}
      </ul>
    </section>
  );
}
