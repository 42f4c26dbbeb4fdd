import { Button, Loader, SegmentedControl, Select } from '@mantine/core';
import { IconArrowLeft, IconLayoutBoard, IconPrinter } from '@tabler/icons-react';
import { memo, useEffect, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { holePicture } from '@roof-chart/core/outputs/holes/holePicture';
import { holePlan, type PlacedItem } from '@roof-chart/core/outputs/holes/holePlan';
import { holeSvg } from '@roof-chart/core/outputs/holes/holeSvg';
import { markedHoles } from '@roof-chart/core/outputs/holes/markedHoles';
import type { Breadboard, HolePlace, Plan } from '@roof-chart/core/plan/plan';
import { holeNetText, holeSummary, itemText, placeText } from '@roof-chart/core/text/views/holeText';
import { useWorkbench } from '../../state/workbench';
import { SavePicture } from '../../ui/SavePicture';
import { BreadboardFields } from './BreadboardFields';
import { HoleDrawing } from './HoleDrawing';
import { HoleItemCard, moved, OTHER_SIDE } from './HoleItemCard';
import { OffList, PlacementState } from './HolePlacement';
import styles from './Holes.module.css';
import { type Placing, usePlacing } from './usePlacing';

const Drawing = memo(HoleDrawing);
const USUAL: Breadboard = { rows: 63, boards: 1, rails: 'whole' };

const ZOOMS = [
  { value: 'whole', label: 'Whole' },
  { value: 'width', label: 'Width' },
  { value: '1', label: '100 %' },
  { value: '1.5', label: '150 %' },
];

function Start({ placing, onClose }: { readonly placing: Placing; readonly onClose: () => void }) {
  const [board, setBoard] = useState(USUAL);
  return (
    <div className={styles.empty}>
      <h2>Hole plan</h2>
      <p>
        Places the microcontroller board, parts and components on a breadboard: which row each goes to, which holes each jumper joins. Wires
        are as short as they can be, two rows stay free between parts, and each build step then names both holes.
      </p>
      <div className={styles.settings}>
        <BreadboardFields value={board} onChange={setBoard} isDisabled={placing.isBusy} />
      </div>
      <div className={styles.settings}>
        <Button
          leftSection={placing.isBusy ? <Loader size={14} color="currentColor" /> : <IconLayoutBoard size={15} />}
          disabled={placing.isBusy}
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

const placeOf = ({ side, row, locked }: PlacedItem): HolePlace => ({ side, row, ...(locked ? { locked: true } : {}) });

/** The hole plan: everything on a breadboard, hole by hole. */
export function HoleView({ plan, onClose }: { readonly plan: Plan; readonly onClose: () => void }) {
  const { sheets, edit } = useWorkbench();
  const [params, setParams] = useSearchParams();
  // On a phone the whole width would be too small to read.
  const [zoom, setZoom] = useState(() => (window.matchMedia('(max-width: 700px)').matches ? '1' : 'width'));
  const placing = usePlacing(plan);
  const paper = useRef<HTMLDivElement>(null);
  const holes = useMemo(() => holePlan(plan, sheets), [plan, sheets]);
  const picture = useMemo(() => holePicture(plan, sheets), [plan, sheets]);
  // The button that led here is gone: the keyboard goes on in the picture.
  const isStarting = holes === undefined;
  useEffect(() => paper.current?.focus({ preventScroll: true }), [isStarting]);
  const mark = params.get('mark');
  useEffect(() => {
    paper.current?.querySelector('[data-ring]')?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }, [mark, zoom]);
  const marked = useMemo(() => markedHoles(plan, sheets, mark), [plan, sheets, mark]);
  const onMark = (next: string | null) =>
    setParams(
      (now) => {
        if (next === null || now.get('mark') === next) now.delete('mark');
        else now.set('mark', next);
        return now;
      },
      { replace: true },
    );
  if (!holes || !picture) return <Start placing={placing} onClose={onClose} />;
  const { breadboard } = holes;
  const selected = holes.items.find(({ id }) => mark === `part ${id}`);
  const setBoard = (next: Breadboard) => placing.place([{ kind: 'breadboard', breadboard: next }], 'all', 'change the breadboard');
  const onMove = (id: string, rows: number, isAcross: boolean) => {
    const item = holes.items.find((one) => one.id === id);
    if (!item || placing.isBusy) return;
    const change = isAcross ? { side: OTHER_SIDE[item.side] } : { row: item.row + rows };
    placing.place([moved(item, change, breadboard)], 'all', `move ${itemText(plan, sheets, id)} on the breadboard`);
  };
  const choices = [
    { group: 'Part', items: holes.items.map(({ id }) => ({ value: `part ${id}`, label: itemText(plan, sheets, id) })) },
    {
      group: 'Net',
      items: [...new Set(holes.nets.values())].map((net) => ({ value: `net ${net}`, label: holeNetText(plan, sheets, net) })),
    },
  ];
  return (
    <div
      className={styles.view}
      onKeyDown={(event) => {
        if (event.key === 'Escape' && mark !== null) onMark(null);
      }}
    >
      <div className={styles.top}>
        <h2 className={styles.title}>
          <span className={styles.printed}>{plan.name}: </span>Hole plan
        </h2>
        <span className={`quiet num ${styles.summary}`}>{holeSummary(plan, sheets)}</span>
        <Button variant="default" leftSection={<IconArrowLeft size={15} />} onClick={onClose}>
          Build sheet
        </Button>
        <Button variant="default" leftSection={<IconPrinter size={15} />} onClick={() => window.print()}>
          Print
        </Button>
        <SavePicture label={`${plan.name} hole plan`} svg={() => holeSvg(plan, sheets)!} />
      </div>
      <div className={styles.settings}>
        <BreadboardFields value={breadboard} onChange={setBoard} isDisabled={placing.isBusy} />
        <Button size="xs" variant="default" disabled={placing.isBusy} onClick={() => placing.place([], 'all', 'place the parts')}>
          {placing.isBusy ? 'Placing…' : 'Place again'}
        </Button>
        {placing.isBusy && (
          <Button size="xs" variant="subtle" onClick={placing.stop}>
            Stop
          </Button>
        )}
        <Button size="xs" variant="subtle" disabled={placing.isBusy} onClick={() => edit([{ kind: 'breadboard', breadboard: null }])}>
          No breadboard
        </Button>
      </div>
      <div className={styles.captionRow}>
        <p className={styles.caption} role="status">
          {mark !== null && marked
            ? selected
              ? `${itemText(plan, sheets, selected.id)}: ${placeText(breadboard, placeOf(selected))}. Arrow keys move it; the others make room.`
              : [...marked.nets].map((net) => holeNetText(plan, sheets, net)).join(' · ')
            : 'Dots are legs, coloured dots ends of jumpers, rings free holes; + and − lead to the supply rails. Select a part to move it, a wire to see where it leads.'}
        </p>
        <SegmentedControl aria-label="Zoom" size="xs" data={ZOOMS} value={zoom} onChange={setZoom} />
        <Select
          aria-label="Highlight a part or a net"
          placeholder="Highlight a part or a net"
          size="xs"
          searchable
          clearable
          data={choices}
          value={mark?.startsWith('wire ') ? null : mark}
          onChange={onMark}
        />
      </div>
      <div ref={paper} className={styles.paper} data-zoom={zoom} tabIndex={0} role="group" aria-label="Hole plan">
        <Drawing
          label={`Hole plan of ${plan.name}`}
          picture={picture}
          marked={marked}
          onMark={onMark}
          itemLabel={(id) => {
            const item = holes.items.find((one) => one.id === id)!;
            return `${itemText(plan, sheets, id)}, ${placeText(breadboard, placeOf(item))}`;
          }}
          onMove={onMove}
          scale={Number.isNaN(Number(zoom)) ? null : Number(zoom)}
        />
      </div>
      <div className={styles.below}>
        {selected && <HoleItemCard key={`${selected.id} ${selected.row}`} plan={plan} holes={holes} item={selected} placing={placing} />}
        <PlacementState plan={plan} holes={holes} placing={placing} />
        <OffList plan={plan} holes={holes} placing={placing} />
      </div>
    </div>
  );
}
