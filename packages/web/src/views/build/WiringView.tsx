import { orThrow } from '@roof-chart/core/collections/orThrow';
import { Button } from '@mantine/core';
import { IconArrowDown, IconArrowsLeftRight, IconArrowUp, IconRotate2 } from '@tabler/icons-react';
import { memo, useCallback, useMemo } from 'react';
import { counted } from '@roof-chart/core/quantity/format';
import { measureWiring } from '@roof-chart/core/outputs/wiring/wiringMeasures';
import { moveModule, type ModuleMove } from '@roof-chart/core/outputs/wiring/moveModule';
import { wiringPicture, type WiringPicture } from '@roof-chart/core/outputs/wiring/wiringPicture';
import { wiringSvg } from '@roof-chart/core/outputs/wiring/wiringSvg';
import { conductorName, conductorText, moduleText } from '@roof-chart/core/text/views/wiringText';
import { boardOrThrow } from '@roof-chart/core/plan/edit';
import { type Plan, terminalKey } from '@roof-chart/core/plan/plan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { useWorkbench } from '../../state/workbench';
import { type MarkGroup, PictureFrame } from './PictureFrame';
import { type PictureMark, usePictureMark } from './usePictureMark';
import { WiringDrawing } from './WiringDrawing';
import styles from './Wiring.module.css';

/** The conductors of what is marked. */
function markedConductors({ conductors }: WiringPicture, marked: PictureMark): ReadonlySet<string> {
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
function choicesOf(plan: Plan, sheets: Sheets, picture: WiringPicture): readonly MarkGroup[] {
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

const Drawing = memo(WiringDrawing);

interface WiringViewProps {
  readonly plan: Plan;
  readonly onClose: () => void;
}

/** What moves the selected part in the picture. */
function Moves({
  plan,
  selected,
  move,
}: {
  readonly plan: Plan;
  readonly selected: string;
  readonly move: (id: string, how: ModuleMove) => void;
}) {
  const { edit } = useWorkbench();
  return (
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
  );
}

/** The wiring picture: board, modules and wires as they lie, in the colours of the wires. */
export function WiringView({ plan, onClose }: WiringViewProps) {
  const { sheets, edit } = useWorkbench();
  const [marked, mark] = usePictureMark();
  const picture = useMemo(() => orThrow(wiringPicture(plan, sheets), 'board sheet'), [plan, sheets]);
  const measures = useMemo(() => measureWiring(picture), [picture]);
  const lit = useMemo(() => markedConductors(picture, marked), [picture, marked]);
  const choices = useMemo(() => choicesOf(plan, sheets, picture), [plan, sheets, picture]);
  const named = picture.conductors.filter(({ id }) => lit.has(id));
  const move = useCallback(
    (id: string, how: ModuleMove) => {
      const moved = moveModule(plan, sheets, id, how);
      if (moved) edit([moved]);
    },
    [edit, plan, sheets],
  );
  const selected = plan.placements.find(({ id }) => marked === `part ${id}`)?.id;
  return (
    <PictureFrame
      planName={plan.name}
      title="Wiring picture"
      summary={`${counted(picture.conductors.length, 'net')}, ${counted(measures.crossings, 'crossing')}`}
      svg={() => orThrow(wiringSvg(plan, sheets), 'board sheet')}
      onClose={onClose}
      mark={marked}
      onMark={mark}
      choices={choices}
      tools={selected === undefined ? undefined : <Moves plan={plan} selected={selected} move={move} />}
      caption={
        named.length === 0
          ? `${boardOrThrow(plan, sheets).sheet.title}: supplies are thick bars, signals have the colours of their wires. Select a part, a pin or a wire to see where it leads.`
          : named.length <= 3
            ? named.map((conductor) => conductorText(plan, sheets, conductor)).join(' · ')
            : named.map((conductor) => conductorName(plan, sheets, conductor)).join(', ')
      }
    >
      {(scale) => (
        <Drawing
          plan={plan}
          picture={picture}
          lit={marked === null ? null : lit}
          marked={marked}
          onMark={mark}
          onMove={move}
          scale={scale}
        />
      )}
    </PictureFrame>
  );
}
