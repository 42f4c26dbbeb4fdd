import { Button, Checkbox, CopyButton } from '@mantine/core';
import { IconCopy, IconLock, IconPrinter } from '@tabler/icons-react';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { TRANSISTOR_WORDS } from '@roof-chart/core/checks/transistors';
import { sayPlacement, sayTerminal } from '@roof-chart/core/checks/say';
import { type BoardPosition, buildList, type BuildResistor, type BuildWire } from '@roof-chart/core/outputs/buildList';
import type { Plan } from '@roof-chart/core/plan/plan';
import { splitKey } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import { boardSheet, type Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { endWords } from '../../app/editWords';
import { resistorWords } from '../resistors/resistorWords';
import { useWorkbench } from '../../app/workbench';
import { useAppSelector } from '../../store/store';
import { WireBar } from '../chart/WireBar';
import { BoardPicture } from './BoardPicture';
import styles from './Build.module.css';

const ORDINAL = ['th', 'st', 'nd', 'rd'] as const;

/** @example ordinal(22) // '22nd' */
function ordinal(n: number): string {
  const teen = n % 100 > 10 && n % 100 < 14;
  return `${n}${teen ? 'th' : (ORDINAL[n % 10] ?? 'th')}`;
}

function positionWords(at: BoardPosition): string {
  const port = at.port && at.port !== at.label ? `, chip port ${at.port}` : '';
  const side = at.headerTitle.includes(at.side) ? '' : `, ${at.side} side`;
  return `${at.headerTitle}${side}, position ${at.position}, ${ordinal(at.fromEnd)} from the ${at.end}${port}`;
}

function whereWords(wire: BuildWire): string {
  const [first, ...others] = wire.at;
  if (!first) return 'this rail is on no header of the board';
  if (wire.end.to === 'pin') return [positionWords(first), ...others.map((o) => `or ${positionWords(o)}`)].join('; ');
  if (others.length === 0) return positionWords(first);
  const headers = [...new Set(wire.at.map((at) => at.headerTitle))];
  const byHeader = headers.map(
    (title) =>
      `${title} ${wire.at
        .filter((at) => at.headerTitle === title)
        .map((at) => at.position)
        .join(', ')}`,
  );
  return `any of ${byHeader.join('; ')}`;
}

/** What sits in a wire: the plan's resistor, or what the sheet says must be there. */
const throughWords = (wire: BuildWire): string => (wire.series === undefined ? (wire.through ?? '') : formatSi(wire.series, 'Ω'));

/** The list as tab-separated lines, ready for a table elsewhere. */
function asText(plan: Plan, sheets: Sheets, wires: readonly BuildWire[]): string {
  const lines = wires.map((w) => [
    w.colour,
    sayPlacement(plan, w.placement),
    w.label,
    endWords(plan, sheets, w.end),
    throughWords(w),
    whereWords(w),
  ]);
  return [['colour', 'part', 'terminal', 'to', 'through', 'where'], ...lines].map((cells) => cells.join('\t')).join('\n');
}

interface WireLineProps {
  readonly plan: Plan;
  readonly wire: BuildWire;
  readonly onTick: (wire: BuildWire, ticked: boolean) => void;
  readonly onPoint: (wire: BuildWire | null) => void;
}

function WireLine({ plan, wire, onTick, onPoint }: WireLineProps) {
  const { sheets } = useWorkbench();
  const name = sayPlacement(plan, wire.placement);
  const to = endWords(plan, sheets, wire.end);
  return (
    <li className={wire.ticked ? styles.tickedLine : styles.line} onMouseEnter={() => onPoint(wire)} onMouseLeave={() => onPoint(null)}>
      <Checkbox
        checked={wire.ticked}
        aria-label={`${name} ${wire.label} to ${to}: done`}
        color="dark.6"
        onChange={(event) => onTick(wire, event.currentTarget.checked)}
        onFocus={() => onPoint(wire)}
      />
      <WireBar colour={wire.colour} />
      <span className={styles.part}>{name}</span>
      <span className={styles.label}>{wire.label}</span>
      <span className={styles.arrow}>→</span>
      <span className={styles.to}>
        {throughWords(wire) && `${throughWords(wire)}, then `}
        {to} {wire.locked && <IconLock size={13} aria-label="locked" />}
      </span>
      <span className={styles.where}>
        {wire.colour}, terminal {wire.number}; {whereWords(wire)}
        {wire.wasAt && <strong className={styles.moved}> Moved since it was ticked: was at {endWords(plan, sheets, wire.wasAt)}.</strong>}
      </span>
    </li>
  );
}

/** A resistor of the list: what to put where, or to take out. */
function Resistor({ plan, resistor }: { readonly plan: Plan; readonly resistor: BuildResistor }) {
  const { sheets } = useWorkbench();
  if (resistor.do === 'cut')
    return (
      <>
        <strong>{sayPlacement(plan, resistor.placement)}</strong>: take its pull-ups of {formatSi(resistor.ohms, 'Ω')} off the lines (
        {resistor.how === 'jumper' ? 'cut or open their solder jumper' : 'unsolder the two resistors'})
      </>
    );
  if (resistor.do === 'ladder')
    return (
      <>
        <strong>{sayPlacement(plan, resistor.placement)}</strong>: its ladder has {resistorWords(resistor.ladder.pull)} at the pin
        {resistor.ladder.row.length > 0 && `, then key by key ${resistor.ladder.row.map(resistorWords).join(', ')}`}
      </>
    );
  if (resistor.do === 'driver')
    return (
      <>
        <strong>{sayTerminal(plan, sheets, resistor.key)}</strong>: {TRANSISTOR_WORDS[resistor.driver.kind]} between it and its pin, with{' '}
        {resistorWords(resistor.driver.ohms)} at its {resistor.driver.kind.endsWith('mos') ? 'gate' : 'base'}
      </>
    );
  if (resistor.do === 'series')
    return (
      <>
        <strong>{sayTerminal(plan, sheets, resistor.key)}</strong>: {resistorWords(resistor.ohms)} in its wire
      </>
    );
  if (resistor.do === 'pull')
    return (
      <>
        <strong>{sayTerminal(plan, sheets, resistor.key)}</strong>: {resistorWords(resistor.ohms)} to{' '}
        {resistor.to === 'supply' ? 'its supply' : 'ground'}
      </>
    );
  const bus = boardSheet(sheets, plan.board)?.controllers.get(resistor.controller)?.title ?? resistor.controller;
  return (
    <>
      <strong>
        {bus}
        {resistor.behind === undefined ? '' : ` behind ${sayPlacement(plan, resistor.behind)}`}
      </strong>
      : {resistorWords(resistor.ohms)} from each of its two lines to their supply
    </>
  );
}

/** The wires in the order to make them, with ticks that stay. */
export function BuildView() {
  const plan = useAppSelector((state) => state.document.plan)!;
  const { sheets, edit } = useWorkbench();
  const [pointed, setPointed] = useState<BuildWire | null>(null);
  const list = useMemo(() => buildList(plan, sheets)!, [plan, sheets]);
  const wires = [...list.supplies, ...list.signals];
  const done = wires.filter((w) => w.ticked).length;
  const tick = (wire: BuildWire, ticked: boolean) => {
    const place = splitKey(wire.key);
    edit(
      [{ kind: 'tick', ...place, end: ticked ? wire.end : null }],
      `${ticked ? 'tick' : 'untick'} ${sayPlacement(plan, wire.placement)} ${wire.label}`,
    );
  };
  if (wires.length === 0) {
    return (
      <div className={styles.empty}>
        <h2>Nothing to wire yet</h2>
        <p>As soon as parts are wired in the Chart, each wire stands here with its place on the board, in the order to make it.</p>
        <Button component={Link} to={`/plans/${plan.id}/${plan.placements.length === 0 ? 'stock' : 'chart'}`}>
          {plan.placements.length === 0 ? 'Add parts' : 'Wire them in the Chart'}
        </Button>
      </div>
    );
  }
  const lines = (part: readonly BuildWire[]) => (
    <ul className={styles.list}>
      {part.map((wire) => (
        <WireLine key={wire.key} plan={plan} wire={wire} onTick={tick} onPoint={setPointed} />
      ))}
    </ul>
  );
  return (
    <div className={styles.view}>
      <div className={styles.sheet}>
        <div className={styles.top}>
          <h2 className={styles.title}>Build list</h2>
          <span className="quiet num">
            <span className={styles.printOnly}>{plan.name} · </span>
            {wires.length} wires · {done} done · USB unplugged
          </span>
          <CopyButton value={asText(plan, sheets, wires)}>
            {({ copied, copy }) => (
              <Button className={styles.print!} variant="default" leftSection={<IconCopy size={15} />} onClick={copy}>
                {copied ? 'Copied' : 'Copy'}
              </Button>
            )}
          </CopyButton>
          <Button className={styles.printNext!} variant="default" leftSection={<IconPrinter size={15} />} onClick={() => window.print()}>
            Print
          </Button>
        </div>
        {list.open.length > 0 && (
          <p className={styles.openNote}>
            {list.open.length} needed {list.open.length === 1 ? 'terminal is' : 'terminals are'} not wired in the plan and so not on this
            list: {list.open.map((o) => `${sayPlacement(plan, o.placement)} ${o.label}`).join(', ')}.
          </p>
        )}
        <h3 className={styles.heading}>Grounds and supplies</h3>
        {lines(list.supplies)}
        {list.straps.length > 0 && (
          <>
            <h3 className={styles.heading}>Jumpers</h3>
            <ul className={styles.straps}>
              {list.straps.map((strap) => (
                <li key={`${strap.placement}:${strap.strap}`}>
                  <strong>{sayPlacement(plan, strap.placement)}</strong>: {strap.words}
                </li>
              ))}
            </ul>
          </>
        )}
        {list.resistors.length > 0 && (
          <>
            <h3 className={styles.heading}>Resistors</h3>
            <ul className={styles.straps}>
              {list.resistors.map((one) => (
                <li key={JSON.stringify(one)}>
                  <Resistor plan={plan} resistor={one} />
                </li>
              ))}
            </ul>
          </>
        )}
        {(list.capacitors.length > 0 || list.idle.length > 0) && (
          <>
            <h3 className={styles.heading}>Beside the parts</h3>
            <ul className={styles.straps}>
              {list.capacitors.map(({ placement, farads, at }) => (
                <li key={`${placement} ${farads}`}>
                  <strong>{sayPlacement(plan, placement)}</strong>: {formatSi(farads, 'F')} at {at}
                </li>
              ))}
              {list.idle.map(({ placement, labels }) => (
                <li key={`${placement} idle`}>
                  <strong>{sayPlacement(plan, placement)}</strong>: {labels.join(', ')} to ground, as nothing uses{' '}
                  {labels.length > 1 ? 'them' : 'it'}
                </li>
              ))}
            </ul>
          </>
        )}
        <h3 className={styles.heading}>Wires</h3>
        {lines(list.signals)}
      </div>
      <BoardPicture plan={plan} wires={wires} pointed={pointed} />
    </div>
  );
}
