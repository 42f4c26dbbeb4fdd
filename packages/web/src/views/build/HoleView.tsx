import { findOrThrow, orThrow } from '@roof-chart/core/collections/orThrow';
import { Button, Loader } from '@mantine/core';
import { IconArrowLeft, IconLayoutBoard } from '@tabler/icons-react';
import { useMemo, useState } from 'react';
import { holePicture } from '@roof-chart/core/outputs/holes/holePicture';
import { holePlan, type HolePlan, type PlacedItem } from '@roof-chart/core/outputs/holes/holePlan';
import { holeSvg } from '@roof-chart/core/outputs/holes/holeSvg';
import { markedHoles } from '@roof-chart/core/outputs/holes/markedHoles';
import { type ItemMove, moveItem } from '@roof-chart/core/outputs/holes/moveItem';
import type { Breadboard, Plan } from '@roof-chart/core/plan/plan';
import { usualBreadboard } from '@roof-chart/core/outputs/holes/usualBreadboard';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { holeNetName, holeNetText, holeSummary, itemText, placeText } from '@roof-chart/core/text/views/holeText';
import { useWorkbench } from '../../state/workbench';
import { BreadboardFields } from './BreadboardFields';
import { HoleDrawing } from './HoleDrawing';
import { HoleItemCard } from './HoleItemCard';
import { OffList, PlacementState } from './HolePlacement';
import styles from './Holes.module.css';
import { type MarkGroup, PictureFrame } from './PictureFrame';
import { usePictureMark } from './usePictureMark';
import { type Placing, usePlacing } from './usePlacing';

function Start({ plan, placing, onClose }: Pick<PlacedViewProps, 'plan' | 'placing' | 'onClose'>) {
  const { sheets } = useWorkbench();
  const [board, setBoard] = useState(() => usualBreadboard(plan, sheets));
  return (
    <div className={styles.empty}>
      <h2>Hole plan</h2>
      <p>
        Places the microcontroller board, parts and components on a breadboard: which row each goes to, which holes each jumper joins. What
        is wired together lies as close together as possible, two rows stay free between parts, and each build step then names both holes.
      </p>
      <div className={styles.settings}>
        <BreadboardFields value={board} onChange={setBoard} />
      </div>
      <div className={styles.settings}>
        <Button
          leftSection={placing.isBusy ? <Loader size={14} color="currentColor" /> : <IconLayoutBoard size={15} />}
          onClick={() => placing.place([{ kind: 'breadboard', breadboard: board }], 'all', 'place on a breadboard')}
        >
          {placing.isBusy ? 'Placing…' : 'Place the parts'}
        </Button>
        <Button variant="default" leftSection={<IconArrowLeft size={15} />} onClick={onClose}>
          Build sheet
        </Button>
      </div>
    </div>
  );
}

interface PlacedViewProps {
  readonly plan: Plan;
  readonly holes: HolePlan;
  readonly placing: Placing;
  readonly onClose: () => void;
}

/** What can be marked, for the list. */
const choicesOf = (plan: Plan, sheets: Sheets, { items, nets }: HolePlan): readonly MarkGroup[] => [
  { group: 'Part', items: items.map(({ id }) => ({ value: `part ${id}`, label: itemText(plan, sheets, id) })) },
  {
    group: 'Net',
    items: [...new Set(nets.values())].map((net) => ({ value: `net ${net}`, label: holeNetName(plan, sheets, net) })),
  },
];

/** The breadboard, and what places everything anew. */
function Settings({ holes, placing }: Pick<PlacedViewProps, 'holes' | 'placing'>) {
  const { edit } = useWorkbench();
  // What is chosen shows at once, so that the keyboard can go on from it while the parts are placed.
  const [chosen, setChosen] = useState<Breadboard | null>(null);
  const place = (breadboard: Breadboard | null) => {
    setChosen(breadboard);
    if (breadboard) placing.place([{ kind: 'breadboard', breadboard }], 'all', 'change the breadboard');
    else placing.place([], 'all', 'place the parts');
  };
  return (
    <div className={styles.settings}>
      <BreadboardFields value={(placing.isBusy ? chosen : null) ?? holes.breadboard} onChange={place} />
      <Button size="xs" variant="default" onClick={() => place(null)}>
        {placing.isBusy ? 'Placing…' : 'Place again'}
      </Button>
      {placing.isBusy && (
        <Button size="xs" variant="subtle" onClick={placing.stop}>
          Stop
        </Button>
      )}
      <Button size="xs" variant="subtle" onClick={() => edit([{ kind: 'breadboard', breadboard: null }])}>
        No breadboard
      </Button>
    </div>
  );
}

function PlacedView({ plan, holes, placing, onClose }: PlacedViewProps) {
  const { sheets } = useWorkbench();
  const [mark, onMark] = usePictureMark();
  const picture = useMemo(() => orThrow(holePicture(plan, sheets), 'hole plan'), [plan, sheets]);
  const marked = useMemo(() => markedHoles(plan, sheets, mark), [plan, sheets, mark]);
  const choices = useMemo(() => choicesOf(plan, sheets, holes), [plan, sheets, holes]);
  const selected = holes.items.find(({ id }) => mark === `part ${id}`);
  const placeOf = (item: PlacedItem) => placeText(holes.breadboard, item);
  const onMove = (item: string, move: ItemMove) => {
    const edit = moveItem(plan, sheets, item, move);
    if (edit) placing.place([edit], 'all', `move ${itemText(plan, sheets, item)} on the breadboard`);
  };
  return (
    <PictureFrame
      planName={plan.name}
      title="Hole plan"
      summary={holeSummary(plan, sheets)}
      svg={() => orThrow(holeSvg(plan, sheets), 'hole plan')}
      onClose={onClose}
      mark={mark}
      onMark={onMark}
      choices={choices}
      tools={<Settings holes={holes} placing={placing} />}
      caption={
        selected
          ? `${itemText(plan, sheets, selected.id)}: ${placeOf(selected)}. Arrow keys move it; the others make room.`
          : marked
            ? [...marked.nets].map((net) => holeNetText(plan, sheets, net)).join(' · ')
            : 'Dots are legs, coloured dots ends of jumpers, rings free holes; + and − lead to the supply rails. Select a part to move it, a wire to see where it leads.'
      }
      below={
        <div className={styles.below}>
          {selected && <HoleItemCard key={selected.id} plan={plan} holes={holes} item={selected} placing={placing} onMove={onMove} />}
          <PlacementState plan={plan} holes={holes} placing={placing} />
          <OffList plan={plan} holes={holes} placing={placing} />
        </div>
      }
    >
      {(scale) => (
        <HoleDrawing
          label={`Hole plan of ${plan.name}`}
          picture={picture}
          marked={marked}
          onMark={onMark}
          itemLabel={(id) => `${itemText(plan, sheets, id)}, ${placeOf(findOrThrow(holes.items, (one) => one.id === id))}`}
          onMove={onMove}
          scale={scale}
        />
      )}
    </PictureFrame>
  );
}

/** The hole plan: everything on a breadboard, hole by hole. */
export function HoleView({ plan, onClose }: { readonly plan: Plan; readonly onClose: () => void }) {
  const { sheets } = useWorkbench();
  const placing = usePlacing(plan);
  const holes = holePlan(plan, sheets);
  return holes ? (
    <PlacedView plan={plan} holes={holes} placing={placing} onClose={onClose} />
  ) : (
    <Start plan={plan} placing={placing} onClose={onClose} />
  );
}
