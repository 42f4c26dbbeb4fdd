import { Button, SegmentedControl, Select } from '@mantine/core';
import { IconArrowDown, IconArrowLeft, IconArrowsLeftRight, IconArrowUp, IconPrinter, IconRotate2 } from '@tabler/icons-react';
import { memo, useEffect, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { counted } from '@roof-chart/core/quantity/format';
import { measureWiring } from '@roof-chart/core/outputs/wiring/wiringMeasures';
import { moveModule, type ModuleMove } from '@roof-chart/core/outputs/wiring/moveModule';
import { wiringPicture, type WiringPicture } from '@roof-chart/core/outputs/wiring/wiringPicture';
import { wiringSvg } from '@roof-chart/core/outputs/wiring/wiringSvg';
import { conductorName, conductorText, moduleText } from '@roof-chart/core/text/views/wiringText';
import { boardOf } from '@roof-chart/core/plan/edit';
import { type Plan, terminalKey } from '@roof-chart/core/plan/plan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { useWorkbench } from '../../state/workbench';
import { SavePicture } from '../../ui/SavePicture';
import { WiringDrawing } from './WiringDrawing';
import styles from './Wiring.module.css';

/** What is marked, as a parameter of the address: `part ID`, `net ID` or `wire KEY`. */
export type Marked = string | null;

/** The conductors of what is marked. */
function markedConductors({ conductors }: WiringPicture, marked: Marked): ReadonlySet<string> {
  const [kind, id] = marked === null ? ['', ''] : [marked.slice(0, marked.indexOf(' ')), marked.slice(marked.indexOf(' ') + 1)];
  return new Set(
    conductors.flatMap((conductor) => {
      const isMarked =
        kind === 'net'
          ? conductor.id === id
          : conductor.ends.some((end) =>
              kind === 'part' ? end.module === id : kind === 'wire' && terminalKey(end.module, end.terminal) === id,
            );
      return isMarked ? [conductor.id] : [];
    }),
  );
}

/** What can be marked, for the list. */
function choicesOf(plan: Plan, sheets: Sheets, picture: WiringPicture) {
  return [
    {
      group: 'Part',
      items: picture.modules.map(({ module }) => ({
        value: `part ${module.id}`,
        label: moduleText(plan, sheets, module).filter(Boolean).join(' · '),
      })),
    },
    {
      group: 'Net',
      items: picture.conductors.map((conductor) => ({ value: `net ${conductor.id}`, label: conductorName(plan, sheets, conductor) })),
    },
  ];
}

const ZOOMS = [
  { value: 'whole', label: 'Whole' },
  { value: 'width', label: 'Width' },
  { value: '1', label: '100 %' },
  { value: '1.5', label: '150 %' },
];

const Drawing = memo(WiringDrawing);

interface WiringViewProps {
  readonly plan: Plan;
  readonly onClose: () => void;
}

/** The wiring picture: board, modules and wires as they lie, in the colours of the wires. */
export function WiringView({ plan, onClose }: WiringViewProps) {
  const { sheets, edit } = useWorkbench();
  const [params, setParams] = useSearchParams();
  const [zoom, setZoom] = useState('width');
  const paper = useRef<HTMLDivElement>(null);
  // The button that led here is gone: the keyboard goes on in the picture.
  useEffect(() => paper.current?.focus({ preventScroll: true }), []);
  const picture = useMemo(() => wiringPicture(plan, sheets)!, [plan, sheets]);
  const measures = useMemo(() => measureWiring(picture), [picture]);
  const marked = params.get('mark');
  const lit = useMemo(() => markedConductors(picture, marked), [picture, marked]);
  const mark = useMemo(
    () => (next: Marked) =>
      setParams(
        (now) => {
          if (next === null || now.get('mark') === next) now.delete('mark');
          else now.set('mark', next);
          return now;
        },
        { replace: true },
      ),
    [setParams],
  );
  const choices = useMemo(() => choicesOf(plan, sheets, picture), [plan, sheets, picture]);
  const named = picture.conductors.filter(({ id }) => lit.has(id));
  const isWire = marked?.startsWith('wire ');
  const move = useMemo(
    () => (id: string, how: ModuleMove) => {
      const moved = moveModule(plan, sheets, id, how);
      if (moved) edit([moved]);
    },
    [edit, plan, sheets],
  );
  const selected = plan.placements.find(({ id }) => marked === `part ${id}`)?.id;
  return (
    <div
      className={styles.view}
      onKeyDown={(event) => {
        if (event.key === 'Escape' && marked !== null) mark(null);
      }}
    >
      <div className={styles.top}>
        <h2 className={styles.title}>
          <span className={styles.printed}>{plan.name}: </span>Wiring picture
        </h2>
        <span className="quiet num">
          {counted(picture.conductors.length, 'net')}, {counted(measures.crossings, 'crossing')}
        </span>
        <Button variant="default" leftSection={<IconArrowLeft size={15} />} onClick={onClose}>
          Build sheet
        </Button>
        <Button variant="default" leftSection={<IconPrinter size={15} />} onClick={() => window.print()}>
          Print
        </Button>
        <SavePicture label={`${plan.name} wiring`} svg={() => wiringSvg(plan, sheets)!} />
        <SegmentedControl aria-label="Zoom" size="xs" data={ZOOMS} value={zoom} onChange={setZoom} />
        <Select
          aria-label="Highlight a part or a net"
          placeholder="Highlight a part or a net"
          size="xs"
          searchable
          clearable
          data={choices}
          value={isWire ? null : marked}
          onChange={mark}
        />
      </div>
      {selected !== undefined && (
        <div className={styles.moves} role="group" aria-label="Move in the picture">
          <Button size="xs" variant="default" leftSection={<IconArrowUp size={14} />} onClick={() => move(selected, 'up')}>
            Up
          </Button>
          <Button size="xs" variant="default" leftSection={<IconArrowDown size={14} />} onClick={() => move(selected, 'down')}>
            Down
          </Button>
          <Button size="xs" variant="default" leftSection={<IconArrowsLeftRight size={14} />} onClick={() => move(selected, 'across')}>
            Other side
          </Button>
          <Button size="xs" variant="default" leftSection={<IconRotate2 size={14} />} onClick={() => move(selected, 'turn')}>
            Turn
          </Button>
          {plan.layout[selected] && (
            <Button size="xs" variant="subtle" onClick={() => edit([{ kind: 'arrange', placement: selected, place: null }])}>
              Automatic place
            </Button>
          )}
        </div>
      )}
      <p className={styles.caption} role="status">
        {named.length === 0
          ? `${boardOf(plan, sheets)!.sheet.title}: supplies are thick bars, signals have the colours of their wires. Select a part, a pin or a wire to see where it leads.`
          : named.length <= 3
            ? named.map((conductor) => conductorText(plan, sheets, conductor)).join(' · ')
            : named.map((conductor) => conductorName(plan, sheets, conductor)).join(', ')}
      </p>
      <div ref={paper} className={styles.paper} data-zoom={zoom} tabIndex={0} role="group" aria-label="Wiring picture">
        <Drawing
          plan={plan}
          picture={picture}
          lit={marked === null ? null : lit}
          marked={marked}
          onMark={mark}
          onMove={move}
          scale={Number.isNaN(Number(zoom)) ? null : Number(zoom)}
        />
      </div>
    </div>
  );
}
