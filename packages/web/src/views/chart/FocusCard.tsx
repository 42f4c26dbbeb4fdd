import clsx from 'clsx';
import { Button, NativeSelect } from '@mantine/core';
import { IconLock, IconLockOpen, IconPlugConnected, IconPlugConnectedX } from '@tabler/icons-react';
import { memo, type ReactNode } from 'react';
import { endFit, fitReason } from '@roof-chart/core/assign/fit/endFit';
import { boardFace } from '@roof-chart/core/faces/boardFace';
import { partFace } from '@roof-chart/core/faces/partFace';
import { terminalText } from '@roof-chart/core/text/names';
import { planComponents } from '@roof-chart/core/electrics/reports/components';
import { driverAt } from '@roof-chart/core/nets/multiplexed';
import { componentText } from '@roof-chart/core/outputs/componentText';
import { wantsPin } from '@roof-chart/core/assign/fit/pinFit';
import { wishedText } from '@roof-chart/core/text/assignmentText';
import type { Nets } from '@roof-chart/core/nets/nets';
import { pinAbilities } from '@roof-chart/core/nets/pinWords';
import type { PlanTerminal } from '@roof-chart/core/nets/terminals';
import { type Plan, WIRE_COLOURS, type WireColour } from '@roof-chart/core/plan/plan';
import { ROLE_WORDS } from '@roof-chart/core/sheets/roles';
import { sourceLine } from '@roof-chart/core/sheets/source';
import type { IndexedBoard } from '@roof-chart/core/sheets/sheetIndex';
import { Link } from 'react-router';
import { useWorkbench } from '../../state/workbench';
import { CostRing, Disc, LockedDisc, ClashDisc, Ring } from '../../ui/chart/marks';
import { FacePicture } from '../../ui/face/Face';
import styles from './Chart.module.css';
import { columnOfEnd, endOfColumn } from './columns';
import { WhyHere } from './WhyHere';
import { LedDriverMenu } from './LedDriverMenu';
import { PartEndMenu } from './PartEndMenu';
import { WishMenu } from './WishMenu';

interface FocusCardProps {
  readonly plan: Plan;
  readonly board: IndexedBoard;
  readonly nets: Nets;
  readonly item: PlanTerminal | undefined;
  readonly column: string | null;
  readonly freeCount: number;
  readonly onAct: (row: string, column: string) => void;
  readonly onLock: (item: PlanTerminal) => void;
  readonly onColour: (item: PlanTerminal, colour: WireColour) => void;
}

function Sign({ children }: { readonly children: ReactNode }) {
  return (
    <svg width="14" height="14" aria-hidden>
      {children}
    </svg>
  );
}

/** The five marks in words, where nothing is in focus. */
function Legend() {
  return (
    <div className={styles.legend}>
      <span>
        <Sign>
          <Ring x={7} y={7} />
        </Sign>{' '}
        possible
      </span>
      <span>
        <Sign>
          <CostRing x={7} y={7} />
        </Sign>{' '}
        possible, with a caveat
      </span>
      <span>
        <Sign>
          <Disc x={7} y={7} />
        </Sign>{' '}
        connected
      </span>
      <span>
        <Sign>
          <LockedDisc x={7} y={7} />
        </Sign>{' '}
        locked
      </span>
      <span>
        <Sign>
          <ClashDisc x={7} y={7} />
        </Sign>{' '}
        conflict
      </span>
      <span className={styles.legendHow}>
        Choose a row, then click a ring (or use the arrow keys and Enter). Delete disconnects, L locks, Shift + left or right moves to the
        next suitable pin.
      </span>
    </div>
  );
}

function TerminalFacts({ plan, item, freeCount }: { readonly plan: Plan; readonly item: PlanTerminal; readonly freeCount: number }) {
  const { sheets } = useWorkbench();
  const { terminal, part } = item;
  const own = planComponents(plan, sheets).filter(({ key }) => key === item.key);
  const lacks = own.length === 0 && terminal.through !== undefined && !driverAt(plan, sheets, item.key);
  const facts = [
    ROLE_WORDS[terminal.role],
    terminal.need === 'needed' ? 'required' : 'optional',
    ...(terminal.also?.length ? [`other labels ${terminal.also.join(', ')}`] : []),
    ...(terminal.requires ?? []).map((ability) => `requires ${ability}`),
    ...own.map(componentText),
    ...(lacks ? [`in series: ${terminal.through}`] : []),
  ];
  return (
    <>
      <p className={styles.fact}>
        {facts.join(' · ')}
        {item.wire ? '' : ` · ${freeCount} free`}
      </p>
      {terminal.note && <p className={styles.fact}>{terminal.note}</p>}
      <p className={styles.source}>
        {part.title}, module pin {terminal.number}. {sourceLine(part.terminals.source, `terminals/${terminal.id}`)}.{' '}
        <Link to={`/plans/${plan.id}/facts/${part.id}?q=terminals/${terminal.id}/`}>Bench note</Link>
      </p>
    </>
  );
}

/** What is wished for the terminal and its part, in words. */
function Wishes({ plan, item }: { readonly plan: Plan; readonly item: PlanTerminal }) {
  const { sheets } = useWorkbench();
  const wish = plan.wishes[item.key];
  const how = plan.together[item.placement.id];
  const words = [
    ...(wish ? [wishedText(plan, sheets, { kind: 'wish', terminal: item.key, wish })] : []),
    ...(how ? [wishedText(plan, sheets, { kind: 'together', placement: item.placement.id, how })] : []),
  ];
  return words.length > 0 ? <p className={styles.fact}>Preferred: {words.join('; ')}.</p> : null;
}

/** What a rail or ground column is. */
function PowerFacts({ board, column }: { readonly board: IndexedBoard; readonly column: string }) {
  const end = endOfColumn(board, column);
  if (end?.to === 'ground') return <p className={styles.fact}>Ground: every position marked GND.</p>;
  const rail = board.sheet.rails.list.find((r) => end?.to === 'rail' && r.id === end.rail);
  return (
    rail && (
      <>
        <p className={styles.fact}>
          {rail.volts.min} V to {rail.volts.max} V{rail.budgetMilliamps ? `, ${rail.budgetMilliamps} mA` : ''}. {rail.feed}
        </p>
        <p className={styles.source}>{sourceLine(board.sheet.rails.source)}</p>
      </>
    )
  );
}

function PinFacts({
  board,
  plan,
  nets,
  column,
}: {
  readonly board: IndexedBoard;
  readonly plan: Plan;
  readonly nets: Nets;
  readonly column: string;
}) {
  const { sheets } = useWorkbench();
  const pin = board.pins.get(column);
  const conductor = pin?.sameAs ?? column;
  const real = board.pins.get(conductor);
  if (!pin || !real || pin.kind !== 'io') return <PowerFacts board={board} column={column} />;
  const users = nets.byPin.get(conductor)?.terminals ?? [];
  return (
    <>
      <p className={styles.fact}>{pinAbilities(board, real).join(' · ')}</p>
      {real.trouble && <p className={styles.trouble}>{real.trouble}</p>}
      <p className={styles.fact}>
        {users.length === 0 ? 'Free.' : `Used by ${users.map((u) => terminalText(plan, sheets, u.key)).join(', ')}.`}
      </p>
      <p className={styles.source}>
        {sourceLine(board.sheet.pins.source, `pins/${conductor}`)}.{' '}
        <Link to={`/plans/${plan.id}/facts/${board.sheet.id}?q=pins/${conductor}/`}>Bench note</Link>
      </p>
    </>
  );
}

function columnTitle(board: IndexedBoard, column: string): string {
  const pin = board.pins.get(column);
  if (pin)
    return `${pin.label} · position ${pin.position}${pin.port ? ` · ${pin.port}` : ''}${pin.sameAs ? ` · same conductor as ${pin.sameAs}` : ''}`;
  const end = endOfColumn(board, column);
  return end?.to === 'rail' ? `Rail ${board.sheet.rails.list.find((r) => r.id === end.rail)?.label ?? end.rail}` : 'Ground';
}

/** The board positions of a column: its pin, or all of its rail or of ground. */
function pinsOfColumn(board: IndexedBoard, column: string): readonly string[] {
  if (board.pins.has(column)) return [column];
  const end = endOfColumn(board, column);
  return board.sheet.pins.list.flatMap(({ id, kind, rail }) =>
    (end?.to === 'ground' && kind === 'ground') || (end?.to === 'rail' && kind === 'supply' && rail === end.rail) ? [id] : [],
  );
}

type Chosen = FocusCardProps & { readonly item: PlanTerminal };

/** What can be done with a wire where it is. */
function WireTools({ item, onLock, onColour }: Pick<Chosen, 'item' | 'onLock' | 'onColour'>) {
  if (!item.wire) return null;
  const { locked, colour } = item.wire;
  return (
    <>
      <Button
        size="compact-xs"
        variant="default"
        leftSection={locked ? <IconLockOpen size={13} /> : <IconLock size={13} />}
        onClick={() => onLock(item)}
      >
        {locked ? 'Unlock' : 'Lock'}
      </Button>
      <NativeSelect
        aria-label="Wire colour"
        size="xs"
        w={84}
        data={[...WIRE_COLOURS]}
        value={colour}
        classNames={{ input: clsx(styles.colourInput) }}
        onChange={(event) => onColour(item, event.currentTarget.value as WireColour)}
      />
    </>
  );
}

/** The terminal with the focus. */
function TerminalHalf({ plan, board, item, column, freeCount, onLock, onColour }: Chosen) {
  const { sheets } = useWorkbench();
  return (
    <>
      <div className={styles.cardTitle}>
        <strong>{terminalText(plan, sheets, item.key)}</strong>
        {wantsPin(item.terminal) && (
          <>
            <WishMenu plan={plan} board={board} item={item} column={column} />
            <WhyHere key={item.key} plan={plan} board={board} terminal={item.key} role={item.terminal.role} />
          </>
        )}
        <PartEndMenu plan={plan} board={board} item={item} />
        <LedDriverMenu plan={plan} item={item} />
        <WireTools item={item} onLock={onLock} onColour={onColour} />
      </div>
      <TerminalFacts plan={plan} item={item} freeCount={freeCount} />
      <Wishes plan={plan} item={item} />
    </>
  );
}

/** The column under the cursor, and whether the wire of the row could go there. */
function ColumnHalf({ plan, board, nets, item, column, onAct }: FocusCardProps & { readonly column: string }) {
  const end = endOfColumn(board, column);
  const fit = item && end ? endFit(board, item.part, item.terminal, end) : undefined;
  const isHere = item?.wire && end && columnOfEnd(item.wire.end) === columnOfEnd(end);
  return (
    <>
      <div className={styles.cardTitle}>
        <strong>{columnTitle(board, column)}</strong>
        {item && end && (isHere || fit?.verdict !== 'cannot') && (
          <Button
            size="compact-xs"
            variant="outline"
            disabled={item.wire?.locked ?? false}
            leftSection={isHere ? <IconPlugConnectedX size={13} /> : <IconPlugConnected size={13} />}
            onClick={() => onAct(item.key, column)}
          >
            {isHere ? 'Disconnect' : 'Connect here'}
          </Button>
        )}
      </div>
      {item && fit && fit.verdict === 'cannot' && <p className={styles.trouble}>{fitReason(fit, item.terminal, board.pins.get(column))}</p>}
      <PinFacts board={board} plan={plan} nets={nets} column={column} />
    </>
  );
}

/** Under the chart: the focused terminal, the column under the cursor, and what can be done with them. */
export const FocusCard = memo(function FocusCard(props: FocusCardProps) {
  const { board, item, column } = props;
  const place = column ?? (item?.wire ? columnOfEnd(item.wire.end) : null);
  if (!item && !column)
    return (
      <section className={styles.card} aria-label="Legend">
        <Legend />
      </section>
    );
  return (
    <section className={styles.card} aria-label="Terminal and pin in focus">
      <div className={styles.cardHalf}>
        {item ? <TerminalHalf {...props} item={item} /> : <p className={styles.fact}>Choose a row to connect its terminal.</p>}
      </div>
      {item && (
        <div className={styles.cardFace}>
          <FacePicture face={partFace(item.part)} lit={[item.terminal.id]} labels={false} maxScale={4} />
        </div>
      )}
      <div className={styles.cardHalf}>
        {column ? <ColumnHalf {...props} column={column} /> : <p className={styles.fact}>Move to a pin to see its functions.</p>}
      </div>
      {place && (
        <div className={styles.cardFace}>
          <FacePicture face={boardFace(board.sheet)} lit={pinsOfColumn(board, place)} labels={false} maxScale={4} />
        </div>
      )}
    </section>
  );
});
