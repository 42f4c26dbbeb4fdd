import clsx from 'clsx';
import { getOrThrow } from '@roof-chart/core/collections/orThrow';
import type { KeyboardEvent } from 'react';
import { moduleFace } from '@roof-chart/core/outputs/wiring/moduleFace';
import type { ModuleMove } from '@roof-chart/core/outputs/wiring/moveModule';
import { SYMBOLS } from '@roof-chart/core/outputs/wiring/symbols';
import { MODULE_WIDTH, type WiringPicture } from '@roof-chart/core/outputs/wiring/wiringPicture';
import { shortened } from '@roof-chart/core/outputs/svgText';
import { conductorText, moduleText, valueText } from '@roof-chart/core/text/views/wiringText';
import { WIRE_HEX } from '@roof-chart/core/outputs/wireHex';
import { boardOrThrow, partOf } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import { useWorkbench } from '../../state/workbench';
import { FaceItems } from '../../ui/face/FaceItems';
import pictureStyles from './Picture.module.css';
import { scaledTo } from './PictureFrame';
import styles from './Wiring.module.css';

interface WiringDrawingProps {
  readonly plan: Plan;
  readonly picture: WiringPicture;
  /** Conductors that are marked; null: none, all are drawn alike. */
  readonly lit: ReadonlySet<string> | null;
  readonly marked: string | null;
  readonly onMark: (marked: string) => void;
  /** Moves a part of the plan. */
  readonly onMove: (id: string, move: ModuleMove) => void;
  /** Pixels of the screen per pixel of the picture; null: as large as the page is wide. */
  readonly scale: number | null;
}

const MOVES: { readonly [key: string]: ModuleMove } = {
  ArrowUp: 'up',
  ArrowDown: 'down',
  ArrowLeft: 'across',
  ArrowRight: 'across',
  t: 'turn',
};

/** What is pressed by mouse, Enter and space alike, and moved by the arrow keys where it can be. */
const pressed = (act: () => void, move?: (how: ModuleMove) => void) => ({
  role: 'button',
  tabIndex: 0,
  onClick: act,
  onKeyDown: (event: KeyboardEvent) => {
    const how = move && MOVES[event.key];
    if (event.key !== 'Enter' && event.key !== ' ' && !how) return;
    event.preventDefault();
    if (how) move(how);
    else act();
  },
});

type Placed = WiringPicture['modules'][number];

/** The terminals along the edge of a module, in the colours of their wires. */
function ModulePins({ placed, picture }: { readonly placed: Placed; readonly picture: WiringPicture }) {
  const { module, at, side, edge } = placed;
  const inward = side === 'left' ? -1 : 1;
  const colours = new Map(picture.lines.flatMap(({ end, colour }) => (end?.module === module.id ? [[end.terminal, colour] as const] : [])));
  return module.terminals.map(({ id, label }) => {
    const colour = colours.get(id);
    return (
      <g key={id}>
        <circle cx={edge + inward * 7} cy={at.get(id)} r={3} className={styles.pin} fill={colour ? WIRE_HEX[colour] : 'var(--field)'} />
        <text x={edge + inward * 14} y={getOrThrow(at, id) + 3.3} className={styles.label} textAnchor={side === 'left' ? 'end' : 'start'}>
          {shortened(label, 9)}
        </text>
      </g>
    );
  });
}

function Module({
  plan,
  placed,
  picture,
  isDim,
  isMarked,
  onMark,
  onMove,
}: {
  readonly plan: Plan;
  readonly placed: Placed;
  readonly picture: WiringPicture;
  readonly isDim: boolean;
  readonly isMarked: boolean;
  readonly onMark: () => void;
  readonly onMove: (how: ModuleMove) => void;
}) {
  const { sheets } = useWorkbench();
  const { module, x, y, height } = placed;
  const [title, note] = moduleText(plan, sheets, module);
  const part = module.component ? undefined : partOf(plan, module.id, sheets)?.sheet;
  const face = part && moduleFace(part, placed);
  return (
    <g
      className={isDim ? pictureStyles.dim : undefined}
      aria-pressed={isMarked}
      {...pressed(onMark, module.component ? undefined : onMove)}
    >
      <rect x={x} y={y} width={MODULE_WIDTH} height={height} rx={3} className={clsx(styles.outline, isMarked && styles.marked)} />
      <text x={x + 2} y={y - 4} className={styles.name}>
        {shortened(title, 24)}
      </text>
      {note !== '' && (
        <text x={x + MODULE_WIDTH - 2} y={y - 4} className={styles.note} textAnchor="end">
          {shortened(note, 14)}
        </text>
      )}
      {face && (
        <svg
          x={face.place.x}
          y={face.place.y}
          width={face.place.w}
          height={face.place.h}
          viewBox={`${face.view.x} ${face.view.y} ${face.view.w} ${face.view.h}`}
          aria-hidden
        >
          <FaceItems items={face.items} hasText={false} />
        </svg>
      )}
      {module.component && (
        <path
          d={SYMBOLS[module.component.kind]}
          transform={`translate(${x + MODULE_WIDTH / 2} ${y + height / 2})`}
          className={styles.symbol}
        />
      )}
      <ModulePins placed={placed} picture={picture} />
    </g>
  );
}

function Board({ plan, picture, lit, onMark }: Pick<WiringDrawingProps, 'plan' | 'picture' | 'lit' | 'onMark'>) {
  const { sheets } = useWorkbench();
  const { x, y, width, height } = picture.board;
  return (
    <g>
      <rect x={x} y={y} width={width} height={height} rx={5} className={styles.board} />
      <text x={x + width / 2} y={y + 15} className={styles.name} textAnchor="middle">
        {shortened(boardOrThrow(plan, sheets).sheet.chip, Math.floor(width / 7))}
      </text>
      {picture.pins.map((pin) => {
        const { id, label, side, colour, conductor } = pin;
        const isDim = lit !== null && (conductor === undefined || !lit.has(conductor));
        return (
          <g
            key={`${side} ${pin.y}`}
            className={isDim ? pictureStyles.dim : undefined}
            {...(conductor === undefined
              ? {}
              : {
                  'aria-label': `Pin ${label}`,
                  'aria-pressed': lit?.has(conductor) ?? false,
                  ...pressed(() => onMark(`net ${conductor}`)),
                })}
            data-pin={id}
          >
            <circle cx={pin.x} cy={pin.y} r={3.6} className={styles.pin} fill={colour ? WIRE_HEX[colour] : 'var(--field)'} />
            <text
              x={pin.x + (side === 'left' ? 8 : -8)}
              y={pin.y + 3.3}
              className={styles.label}
              textAnchor={side === 'left' ? 'start' : 'end'}
            >
              {label}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** Trunks, branches and dots of one conductor; a broad line that is not seen takes the pointer. */
function Wires({
  plan,
  picture,
  conductor,
  isDim,
  onMark,
}: {
  readonly plan: Plan;
  readonly picture: WiringPicture;
  readonly conductor: WiringPicture['conductors'][number];
  readonly isDim: boolean;
  readonly onMark: () => void;
}) {
  const { sheets } = useWorkbench();
  const lines = picture.lines.filter((line) => line.conductor === conductor.id);
  const path = (list: typeof lines) => list.map(({ x1, y1, x2, y2 }) => `M${x1} ${y1}L${x2} ${y2}`).join('');
  return (
    <g className={clsx(styles.wire, isDim && pictureStyles.dim)} onClick={onMark}>
      <title>{conductorText(plan, sheets, conductor)}</title>
      <path d={path(lines)} className={pictureStyles.touch} />
      {lines.map(({ x1, y1, x2, y2, colour, isBar }, at) => (
        <g key={at}>
          {(colour === 'white' || colour === 'black') && (
            <line
              {...{ x1, y1, x2, y2 }}
              className={colour === 'white' ? styles.casing : styles.casingOfBlack}
              strokeWidth={isBar ? 5 : 3.2}
            />
          )}
          <line {...{ x1, y1, x2, y2 }} stroke={WIRE_HEX[colour]} strokeWidth={isBar ? 3.6 : 1.8} strokeLinecap="square" />
        </g>
      ))}
      {picture.dots
        .filter((dot) => dot.conductor === conductor.id)
        .map(({ x, y, colour }) => (
          <circle key={`${x} ${y}`} cx={x} cy={y} r={2.8} fill={WIRE_HEX[colour]} />
        ))}
      {picture.resistors
        .filter((one) => one.conductor === conductor.id)
        .map(({ x, y, component }) => (
          <g key={component.id}>
            <rect x={x - 9} y={y - 3.2} width={18} height={6.4} rx={1} className={styles.outline} />
            <text x={x} y={y - 4.6} className={styles.value} textAnchor="middle">
              {component.name} {valueText(component)}
            </text>
          </g>
        ))}
    </g>
  );
}

/** The wiring picture itself. Parts, pins and wires are marked by a press; what is not marked recedes. */
export function WiringDrawing({ plan, picture, lit, marked, onMark, onMove, scale }: WiringDrawingProps) {
  const { width, height, modules, conductors } = picture;
  const isAtLit = (module: string) =>
    lit === null || conductors.some((one) => lit.has(one.id) && one.ends.some((end) => end.module === module));
  return (
    <svg {...scaledTo(width, height, scale)} role="group" aria-label={`Wiring of ${plan.name}`}>
      <Board plan={plan} picture={picture} lit={lit} onMark={onMark} />
      {modules.map((placed) => (
        <Module
          key={placed.module.id}
          plan={plan}
          placed={placed}
          picture={picture}
          isMarked={marked === `part ${placed.module.id}`}
          isDim={!isAtLit(placed.module.id) && marked !== `part ${placed.module.id}`}
          onMark={() => onMark(`part ${placed.module.id}`)}
          onMove={(how) => onMove(placed.module.id, how)}
        />
      ))}
      {conductors.map((conductor) => (
        <Wires
          key={conductor.id}
          plan={plan}
          picture={picture}
          conductor={conductor}
          isDim={lit !== null && !lit.has(conductor.id)}
          onMark={() => onMark(`net ${conductor.id}`)}
        />
      ))}
    </svg>
  );
}
