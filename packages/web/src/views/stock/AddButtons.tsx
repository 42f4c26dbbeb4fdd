import { Button } from '@mantine/core';
import { newPlacement } from '@roof-chart/core/plan/newPlacement';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { Addition } from '@roof-chart/core/review/addition';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { useWorkbench } from '../../app/workbench';
import styles from './Stock.module.css';

/** Adds a part with the wires that fit, or bare. */
export function AddButtons({
  plan,
  part,
  addition,
}: {
  readonly plan: Plan;
  readonly part: PartSheet;
  readonly addition: Addition | undefined;
}) {
  const { edit } = useWorkbench();
  return (
    <div className={styles.buttons}>
      <Button
        variant="filled"
        disabled={!addition}
        aria-label={`Add ${part.title} and connect it`}
        onClick={() => addition && edit(addition.edits, `add ${part.title} with its wires`)}
      >
        Add and connect
      </Button>
      <Button
        variant="subtle"
        aria-label={`Add ${part.title} without wires`}
        onClick={() => edit([{ kind: 'add-placement', placement: newPlacement(plan, part) }], `add ${part.title}`)}
      >
        Add without wires
      </Button>
    </div>
  );
}
