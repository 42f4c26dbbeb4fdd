import { Button } from '@mantine/core';
import { useState } from 'react';
import { newPlacement } from '@roof-chart/core/plan/newPlacement';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { AdditionNeeds, CompleteAddition } from '@roof-chart/core/review/additionNeeds';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { needsText } from '@roof-chart/core/text/needsText';
import { useWorkbench } from '../../state/workbench';
import styles from './Stock.module.css';
import { Hint } from '../../ui/Hint';

/** The helpers alone where there are some: the components are in the line beside the button. */
const shortNeeds = (needs: AdditionNeeds): string =>
  needsText(needs.adds.length + needs.uses.length > 0 ? { ...needs, components: {} } : needs);

interface AddButtonsProps {
  readonly plan: Plan;
  readonly part: PartSheet;
  readonly addition: CompleteAddition | undefined;
  /** How many to add at once. */
  readonly count: number;
}

/** Adds several of a part. */
function AddSeveral({ plan, part, count }: Omit<AddButtonsProps, 'addition'>) {
  const { edit, workers } = useWorkbench();
  const addAll = async () => {
    const several = await workers.ask((reviewer) => reviewer.addSeveral(plan, part.id, count));
    if (several && several.count > 0) edit(several.edits, `add ${several.count} × ${part.title} with their wires`);
  };
  return (
    <Button variant="filled" aria-label={`Add ${count} and connect: ${part.title}`} onClick={() => void addAll()}>
      Add {count} and connect
    </Button>
  );
}

/** Adds a part that could follow a chain on pins of its own. */
function AddApart({ plan, part }: Pick<AddButtonsProps, 'plan' | 'part'>) {
  const { edit, workers } = useWorkbench();
  const addApart = async () => {
    const apart = await workers.ask((reviewer) => reviewer.additionApart(plan, part.id));
    if (apart) edit(apart.edits, `add ${part.title} with its wires`);
  };
  return (
    <Button variant="subtle" aria-label={`Add on its own pins: ${part.title}`} onClick={() => void addApart()}>
      Add on its own pins
    </Button>
  );
}

/** Adds a part with the wires that fit, or bare. Names of buttons begin with what they show, for those who speak to the page. */
export function AddButtons({ plan, part, addition, count }: AddButtonsProps) {
  const { edit } = useWorkbench();
  // The buttons stay as they are until the next answer, so that the one in use keeps the focus.
  const [shown, setShown] = useState(addition);
  if (addition && addition !== shown) setShown(addition);
  const needs = shown?.needs;
  const isChained = shown?.after !== undefined;
  const connectText = isChained ? 'Add to the chain' : 'Add and connect';
  const waiting = addition ? {} : { 'aria-disabled': true, 'data-disabled': true };
  if (count > 1)
    return (
      <div className={styles.buttons}>
        <AddSeveral plan={plan} part={part} count={count} />
      </div>
    );
  return (
    <div className={styles.buttons}>
      {needs && (
        <Hint label={`Add with ${needsText(needs)}`}>
          <Button
            {...waiting}
            variant="filled"
            aria-label={`Add with ${shortNeeds(needs)}: ${part.title}`}
            onClick={() => addition && edit(needs.edits, `add ${part.title} with ${needsText(needs)}`)}
          >
            Add with {shortNeeds(needs)}
          </Button>
        </Hint>
      )}
      <Button
        variant={needs ? 'subtle' : 'filled'}
        {...waiting}
        aria-label={`${connectText}: ${part.title}`}
        onClick={() => addition && edit(addition.edits, `add ${part.title} with its wires`)}
      >
        {connectText}
      </Button>
      {isChained && <AddApart plan={plan} part={part} />}
      <Button
        variant="subtle"
        aria-label={`Add without wires: ${part.title}`}
        onClick={() => edit([{ kind: 'add-placement', placement: newPlacement(plan, part) }])}
      >
        Add without wires
      </Button>
    </div>
  );
}
