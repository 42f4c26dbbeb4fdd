import clsx from 'clsx';
import { Button, Switch, UnstyledButton } from '@mantine/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { counted, formatAddress } from '@roof-chart/core/quantity/format';
import { findBuses } from '@roof-chart/core/nets/buses';
import { findNets, type Nets } from '@roof-chart/core/nets/nets';
import { openTerminals } from '@roof-chart/core/nets/openTerminals';
import { terminalsOf } from '@roof-chart/core/nets/terminals';
import { addressesOf } from '@roof-chart/core/nets/addresses';
import type { Placement, Plan } from '@roof-chart/core/plan/plan';
import { factTitle } from '@roof-chart/core/text/fieldText';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import { notesOn } from '@roof-chart/core/sheets/benchNote';
import { diffSheets } from '@roof-chart/core/sheets/diffSheets';
import { FAMILIES, type PartSheet } from '@roof-chart/core/sheets/partSheet';
import { boardSheet, partSheet, type Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { EditableName } from '../../ui/PlanName';
import { selectFindingCounts, selectReviewed } from '../../state/selectors';
import { useAppSelector } from '../../state/store';
import { useWorkbench } from '../../state/workbench';
import { Forms } from './Forms';
import { FAMILY_TEXT } from '@roof-chart/core/text/partText';
import styles from './Stock.module.css';
import { Hint } from '../../ui/Hint';

/** What can be done with a part of the plan. */
function PartLinks({ plan, placement }: { readonly plan: Plan; readonly placement: Placement }) {
  const { edit, workers } = useWorkbench();
  const duplicate = async () => {
    const second = await workers.ask((reviewer) => reviewer.duplicate(plan, placement.id));
    if (second) edit(second.edits, `duplicate ${placement.name}`);
  };
  const notes = notesOn(plan.benchNotes, placement.sheet.id).length;
  return (
    <span className={styles.placedLinks}>
      <Link className={styles.more} to={`/plans/${plan.id}/facts/${placement.sheet.id}`} aria-label={`Facts of ${placement.name}`}>
        Facts{notes > 0 ? `, ${counted(notes, 'bench note')}` : ''}
      </Link>
      {placement.onBoard ? (
        <span className="quiet">on the board</span>
      ) : (
        <>
          <Hint label="A second one with its wiring">
            <UnstyledButton className={styles.more} aria-label={`Duplicate ${placement.name}`} onClick={() => void duplicate()}>
              Duplicate
            </UnstyledButton>
          </Hint>
          <UnstyledButton
            className={styles.more}
            aria-label={`Remove ${placement.name}`}
            onClick={() => edit([{ kind: 'remove-placement', placement: placement.id }], `${placement.name} removed`)}
          >
            Remove
          </UnstyledButton>
        </>
      )}
      <Forms plan={plan} placement={placement} />
    </span>
  );
}

function PartRow({ plan, nets, placement }: { readonly plan: Plan; readonly nets: Nets; readonly placement: Placement }) {
  const { sheets, edit } = useWorkbench();
  const part = partSheet(sheets, placement.sheet)?.sheet;
  const addresses = addressesOf(plan, placement, sheets).map((a) => formatAddress(a.address));
  const needed = part?.terminals.list.filter((t) => t.need === 'needed') ?? [];
  const open = openTerminals(terminalsOf(plan, placement, sheets), nets).length;
  return (
    <li className={styles.placed}>
      <div className={styles.placedWords}>
        <EditableName
          name={placement.name}
          what="this part"
          className={clsx(styles.placedName)}
          onRename={(name) => edit([{ kind: 'rename-placement', placement: placement.id, name }])}
        />
        <span className="quiet">{part?.title}</span>
        <span className={styles.placedFacts}>
          {addresses.length > 0 && <span className="mono">{addresses.join(' ')}</span>}
          {open > 0 ? (
            <span className={styles.open}>{open === needed.length ? 'not connected' : `${open} of ${needed.length} unconnected`}</span>
          ) : (
            <span className={styles.done}>connected</span>
          )}
        </span>
        <PartLinks plan={plan} placement={placement} />
        <NewerSheet placement={placement.id} was={part} now={sheets.parts.get(placement.sheet.id)?.sheet} />
      </div>
    </li>
  );
}

/** Offers the newest version of a sheet that the plan was made with an older one of: what would change, then the step. */
function NewerSheet({
  placement,
  was,
  now,
}: {
  /** Null for the board. */
  readonly placement: string | null;
  readonly was: BoardSheet | PartSheet | undefined;
  readonly now: BoardSheet | PartSheet | undefined;
}) {
  const { edit } = useWorkbench();
  const [open, setOpen] = useState(false);
  const changes = useMemo(() => (open && was && now ? diffSheets(was, now) : []), [open, was, now]);
  if (!was || !now || now.version <= was.version) return null;
  return (
    <div className={styles.newer}>
      <UnstyledButton className={styles.more} aria-expanded={open} onClick={() => setOpen(!open)}>
        Sheet version {now.version} available (this plan uses {was.version})
      </UnstyledButton>
      {open && (
        <>
          <ul className={styles.changes}>
            {changes.map((c) => (
              <li key={c.path}>
                {factTitle(now.kind, c.path, '.')}: {c.before ?? '(none)'} → {c.after ?? '(none)'}
              </li>
            ))}
          </ul>
          <Button variant="default" onClick={() => edit([{ kind: 'take-sheet', placement, version: now.version }])}>
            Update to version {now.version}
          </Button>
        </>
      )}
    </div>
  );
}

/** Whether the program uses the board's radio, shown if that blocks pin functions. */
function Radio({ plan }: { readonly plan: Plan }) {
  const { sheets, edit } = useWorkbench();
  const radio = boardSheet(sheets, plan.board)?.sheet.radio;
  if (!radio || radio.blocksAdc.length === 0) return null;
  return (
    <Switch
      size="xs"
      className={clsx(styles.radio)}
      checked={plan.radio}
      label={`The program uses ${radio.kinds}`}
      description={radio.note ?? `Blocks the analog inputs of ${radio.blocksAdc.join(', ')}.`}
      onChange={(event) => edit([{ kind: 'radio', on: event.currentTarget.checked }])}
    />
  );
}

/** "17 of 26 pins, 2 buses, 1 error": the plan in one line. */
function Counts({ plan }: { readonly plan: Plan }) {
  const { sheets } = useWorkbench();
  const reviewed = useAppSelector(selectReviewed);
  const { clash: errors } = useAppSelector(selectFindingCounts);
  const buses = useMemo(() => findBuses(plan, sheets).length, [plan, sheets]);
  if (!reviewed?.result.ok) return null;
  const { ledgers } = reviewed.result.review;
  return (
    <p className={styles.counts}>
      <span className="num">
        {ledgers.pins.used} of {ledgers.pins.total} pins, {counted(Object.keys(plan.wires).length, 'wire', 'wires')},{' '}
        {counted(buses, 'bus', 'buses')}
        {errors > 0 ? `, ${counted(errors, 'error')}` : ''}
      </span>
    </p>
  );
}

/** From here on a list of parts is easier to read by family. */
const MANY = 12;

function byFamily(plan: Plan, sheets: Sheets): readonly { readonly head: string; readonly placements: readonly Placement[] }[] {
  if (plan.placements.length <= MANY) return [{ head: '', placements: plan.placements }];
  const family = (placement: Placement) => partSheet(sheets, placement.sheet)?.sheet.family;
  const known = FAMILIES.map((f) => ({ head: FAMILY_TEXT[f], placements: plan.placements.filter((p) => family(p) === f) }));
  const rest = { head: 'Sheet missing', placements: plan.placements.filter((p) => !family(p)) };
  return [...known, rest].filter((group) => group.placements.length > 0);
}

/** The parts of the plan. */
export function PartList({ plan }: { readonly plan: Plan }) {
  const { sheets } = useWorkbench();
  const nets = useMemo(() => findNets(plan, sheets), [plan, sheets]);
  return (
    <section className={styles.inPlan} aria-label="In this plan">
      <h2 className={styles.heading}>
        In this plan <span className="quiet num">{plan.placements.length}</span>
      </h2>
      {plan.placements.length === 0 && (
        <p className="quiet">
          No parts yet. Choose a part from the list on the right: it is added with proposed wires, which you can move in the Chart.
        </p>
      )}
      <NewerSheet placement={null} was={boardSheet(sheets, plan.board)?.sheet} now={sheets.boards.get(plan.board.id)?.sheet} />
      {plan.placements.length > 0 && <Counts plan={plan} />}
      <Radio plan={plan} />
      {byFamily(plan, sheets).map(({ head, placements }) => (
        <div key={head}>
          {head && <h3 className={styles.familyHead}>{head}</h3>}
          <ul className={styles.list}>
            {placements.map((placement) => (
              <PartRow key={placement.id} plan={plan} nets={nets} placement={placement} />
            ))}
          </ul>
        </div>
      ))}
    </section>
  );
}
