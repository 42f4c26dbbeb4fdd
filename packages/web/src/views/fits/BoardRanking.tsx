import clsx from 'clsx';
import { getOrThrow } from '@roof-chart/core/collections/orThrow';
import { Button, UnstyledButton } from '@mantine/core';
import { IconChevronDown, IconChevronRight } from '@tabler/icons-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { describeFinding } from '@roof-chart/core/text/describe';
import type { Plan } from '@roof-chart/core/plan/plan';
import { type BoardFit, compareFits } from '@roof-chart/core/review/boardFit';
import { useWorkbench } from '../../state/workbench';
import { ListFace } from '../../ui/face/ListFace';
import { LevelMark } from '../../ui/findings/LevelMark';
import { PinAxis, PinBar } from './PinBar';
import styles from './Fits.module.css';
import { boardVerdict, switchText } from '@roof-chart/core/text/views/fitText';
import { Streaming } from './Streaming';
import { useStream } from './useStream';

const askBoards = (
  reviewer: { boardFits: (held: number, boards: readonly string[]) => Promise<readonly BoardFit[]> },
  held: number,
  ids: readonly string[],
): Promise<readonly BoardFit[]> => reviewer.boardFits(held, ids);

const boardOfFit = (fit: BoardFit): string => fit.board;

const LEFT = ['Free pins', 'Analog', 'PWM', 'I2C', 'SPI', 'Serial'] as const;

const TONE = { fits: clsx(styles.good), clashes: clsx(styles.bad), open: clsx(styles.bad), unknown: clsx(styles.risky) } as const;

function Details({ plan, fit, title }: { readonly plan: Plan; readonly fit: BoardFit; readonly title: string }) {
  const { sheets, edit } = useWorkbench();
  const navigate = useNavigate();
  const present = plan.board.id === fit.board;
  const grave = fit.findings.filter((f) => f.level !== 'hint');
  const place = useRef<HTMLDivElement>(null);
  // In braces: some browsers give a promise back, which is no clean-up.
  useEffect(() => {
    place.current?.scrollIntoView({ block: 'nearest' });
  }, []);
  return (
    <div className={styles.details} ref={place}>
      <ul className={styles.sentences}>
        {switchText(plan, fit, sheets).map((line) => (
          <li key={line}>{line}</li>
        ))}
        {grave.map((finding) => (
          <li key={finding.id} className={styles.finding}>
            <LevelMark level={finding.level} /> {describeFinding(fit.plan, sheets, finding).title}
          </li>
        ))}
      </ul>
      {present ? (
        <p className="quiet">Present board of the plan.</p>
      ) : (
        <Button
          size="compact-sm"
          onClick={() => {
            if (edit(fit.edits, `switch to ${title}`)) void navigate(`/plans/${plan.id}/chart`);
          }}
        >
          Switch to this board
        </Button>
      )}
    </div>
  );
}

function Row({
  plan,
  id,
  fit,
  most,
  open,
  onOpen,
}: {
  readonly plan: Plan;
  readonly id: string;
  readonly fit: BoardFit | undefined;
  readonly most: number;
  readonly open: boolean;
  readonly onOpen: () => void;
}) {
  const { sheets } = useWorkbench();
  const board = getOrThrow(sheets.boards, id).sheet;
  const { title } = board;
  const room = fit?.headRoom;
  return (
    <>
      <tr className={styles.row}>
        <th scope="row">
          <UnstyledButton className={styles.open} aria-expanded={open} disabled={!fit} onClick={onOpen} title={title}>
            {open ? <IconChevronDown size={14} aria-hidden /> : <IconChevronRight size={14} aria-hidden />}
            <ListFace sheet={board} />
            <span className={styles.name}>{title}</span>
            {plan.board.id === id && <span className={styles.here}>now</span>}
          </UnstyledButton>
        </th>
        <td className={styles.axisCell}>{room && <PinBar used={room.total - room.pins} total={room.total} most={most} />}</td>
        <td className={styles.number}>{room?.pins}</td>
        <td className={styles.number}>{room?.adc}</td>
        <td className={styles.number}>{room?.pwm}</td>
        <td className={styles.number}>{room?.controllers.i2c}</td>
        <td className={styles.number}>{room?.controllers.spi}</td>
        <td className={styles.number}>{room?.controllers.uart}</td>
        <td className={fit ? TONE[fit.verdict] : 'quiet'}>{fit ? boardVerdict(fit) : 'trying…'}</td>
      </tr>
      {open && fit && (
        <tr>
          <td colSpan={9} className={styles.detailCell}>
            <Details plan={plan} fit={fit} title={title} />
          </td>
        </tr>
      )}
    </>
  );
}

/** Every board with the plan assigned on it, best first once all are known. */
export function BoardRanking({ plan }: { readonly plan: Plan }) {
  const { sheets } = useWorkbench();
  const ids = useMemo(() => [...sheets.boards.keys()], [sheets]);
  const { found: fits } = useStream(plan, ids, askBoards, boardOfFit, 'slow');
  const [opened, setOpened] = useState<string | null>(null);
  const done = fits.length === ids.length;
  // While answers come in the rows keep their places; they are ranked once.
  const order = useMemo(() => (done ? fits.toSorted(compareFits).map((fit) => fit.board) : ids), [done, fits, ids]);
  const byBoard = new Map(fits.map((fit) => [fit.board, fit]));
  const most = Math.max(...[...sheets.boards.values()].map((b) => b.ioPins.filter((pin) => pin.grade !== 'reserved').length));
  const able = fits.filter((fit) => fit.verdict === 'fits').length;
  return (
    <>
      <Streaming
        done={fits.length}
        all={ids.length}
        words={`These parts fit on ${able} of ${ids.length} boards. Best first: what fits, then fewest errors and warnings, then most free pins.`}
      />
      <div className={styles.scroller} tabIndex={0} role="region" aria-label="Boards">
        <table className={styles.table}>
          <thead>
            <tr>
              <th scope="col">Board</th>
              <th scope="col" className={styles.axisCell}>
                <span className={styles.hidden}>Pins in use</span>
                <PinAxis most={most} />
              </th>
              {LEFT.map((words) => (
                <th key={words} scope="col" className={styles.number}>
                  {words}
                </th>
              ))}
              <th scope="col">The parts</th>
            </tr>
          </thead>
          <tbody>
            {order.map((id) => (
              <Row
                key={id}
                plan={plan}
                id={id}
                fit={byBoard.get(id)}
                most={most}
                open={opened === id}
                onOpen={() => setOpened(opened === id ? null : id)}
              />
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}
