import { orThrow } from '@roof-chart/core/collections/orThrow';
import clsx from 'clsx';
import { Button, CopyButton } from '@mantine/core';
import { IconCopy, IconLayoutBoard, IconListNumbers, IconPrinter, IconSitemap } from '@tabler/icons-react';
import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { placementText } from '@roof-chart/core/text/names';
import { namesKept } from '@roof-chart/core/electrics/reports/components';
import { buildList, type BuildWire } from '@roof-chart/core/outputs/buildList';
import { billOf } from '@roof-chart/core/outputs/bill';
import { buildSheet, type BuildSection, type BuildStep, builtNow, changesSinceBuilt, tickEdits } from '@roof-chart/core/outputs/buildSheet';
import { stepPositions } from '@roof-chart/core/outputs/stepPositions';
import { errorTitles } from '@roof-chart/core/outputs/openErrors';
import { type Plan } from '@roof-chart/core/plan/plan';
import { counted } from '@roof-chart/core/quantity/format';
import { selectReviewed } from '../../state/selectors';
import { useWorkbench } from '../../state/workbench';
import { today } from '../../ui/factFields';
import { useAppSelector, useOpenPlan } from '../../state/store';
import { BillTable } from './BillTable';
import { BoardPicture } from './BoardPicture';
import { asText, changeText, SECTION_TEXT, stepText } from '@roof-chart/core/text/views/buildText';
import styles from './Build.module.css';
import { ExportMenu } from './ExportMenu';
import { HoleView } from './HoleView';
import { ImportWires } from './ImportWires';
import { OpenErrors } from './OpenErrors';
import { PhoneCode } from './PhoneCode';
import { StepLine } from './StepLine';
import { WiringView } from './WiringView';
import { StepMode } from './StepMode';

/** Today, as 2026-11-26. */

/** The wires to remove, move and add on the bench since the plan was marked as built. */
function Changes({ plan }: { readonly plan: Plan }) {
  const { sheets, edit } = useWorkbench();
  const changes = useMemo(() => changesSinceBuilt(plan, sheets), [plan, sheets]);
  const { built } = plan;
  const keep = () =>
    edit([...namesKept(plan, sheets), { kind: 'built', built: builtNow(plan, sheets, today(new Date())) }], 'mark as built');
  if (!built)
    return (
      <div className={clsx('quiet', styles.built, styles.unbuilt, styles.onScreen)}>
        When everything is wired, mark the build as done; later changes are then listed as wires to remove, move and add.
        <Button size="compact-sm" variant="default" onClick={keep}>
          Mark as built
        </Button>
      </div>
    );
  return (
    <section className={styles.built} aria-label="Changes since the build">
      <p>
        {changes.length === 0 ? `Built on ${built.date}, no changes since.` : `Built on ${built.date}. To change on the bench:`}{' '}
        {changes.length > 0 && (
          <Button size="compact-sm" variant="default" onClick={keep}>
            Mark the changes as built
          </Button>
        )}
        <Button size="compact-sm" variant="subtle" onClick={() => edit([{ kind: 'built', built: null }])}>
          Clear build record
        </Button>
      </p>
      <ul>
        {changes.map((change) => (
          <li key={`${change.do} ${change.key}`}>{changeText(change)}</li>
        ))}
      </ul>
    </section>
  );
}

function Empty({ plan }: { readonly plan: Plan }) {
  const hasParts = plan.placements.length > 0;
  return (
    <div className={styles.empty}>
      <h2>Nothing to wire yet</h2>
      <p>Add parts and assign their pins: each wire is then listed here with its header position, in build order.</p>
      <Button component={Link} to={`/plans/${plan.id}/${hasParts ? 'chart' : 'stock'}`}>
        {hasParts ? 'Open the Chart' : 'Add parts'}
      </Button>{' '}
      {hasParts && <ImportWires plan={plan} />}
    </div>
  );
}

/** Ticks a step, or no longer. */
function useTicking(plan: Plan): (step: BuildStep, done: boolean) => boolean {
  const { sheets, edit } = useWorkbench();
  return (step, done) => {
    const words = `${done ? 'tick' : 'untick'} ${stepText(plan, sheets, step).head}`;
    // From the first step that is done on the bench, components keep their names.
    const names = done ? namesKept(plan, sheets) : [];
    return edit([...names, ...tickEdits(plan, step, done)], words);
  };
}

interface ActionsProps {
  readonly plan: Plan;
  readonly sections: readonly BuildSection[];
  readonly errors: readonly string[];
  readonly onMode: (mode: 'steps' | 'wiring' | 'holes') => void;
}

/** Other ways to look at the build, and what is taken along from it. */
function Actions({ plan, sections, errors, onMode }: ActionsProps) {
  const { sheets } = useWorkbench();
  return (
    <>
      <div className={styles.actions}>
        <Button leftSection={<IconListNumbers size={15} />} onClick={() => onMode('steps')}>
          Step by step
        </Button>
        <Button variant="default" leftSection={<IconSitemap size={15} />} onClick={() => onMode('wiring')}>
          Wiring picture
        </Button>
        <Button variant="default" leftSection={<IconLayoutBoard size={15} />} onClick={() => onMode('holes')}>
          Hole plan
        </Button>
      </div>
      <div className={styles.actions}>
        <CopyButton value={asText(plan, sheets, sections, errors)}>
          {({ copied, copy }) => (
            <Button variant="default" leftSection={<IconCopy size={15} />} onClick={copy}>
              {copied ? 'Copied' : 'Copy'}
            </Button>
          )}
        </CopyButton>
        <Button variant="default" leftSection={<IconPrinter size={15} />} onClick={() => window.print()}>
          Print
        </Button>
        <ExportMenu plan={plan} />
        <PhoneCode planId={plan.id} />
        <ImportWires plan={plan} />
      </div>
    </>
  );
}

/** Needed terminals without a wire: the sheet would be taken for complete without them. */
function OpenTerminals({ plan }: { readonly plan: Plan }) {
  const { sheets } = useWorkbench();
  const open = useMemo(() => buildList(plan, sheets)?.open ?? [], [plan, sheets]);
  if (open.length === 0) return null;
  return (
    <p className={styles.openNote}>
      {open.length} required {open.length === 1 ? 'terminal is' : 'terminals are'} unconnected in the plan and missing from this list:{' '}
      {open.map((o) => `${placementText(plan, o.placement)} ${o.label}`).join(', ')}.
    </p>
  );
}

interface SheetProps extends ActionsProps {
  readonly wires: readonly BuildWire[];
  readonly onTick: (step: BuildStep, done: boolean) => void;
}

/** The sheet itself beside the board, on which the step under the pointer is marked. */
function Sheet({ plan, sections, errors, wires, onMode, onTick }: SheetProps) {
  const { sheets } = useWorkbench();
  const [pointed, setPointed] = useState<BuildStep | null>(null);
  const bill = useMemo(() => orThrow(billOf(plan, sheets), 'board sheet'), [plan, sheets]);
  const done = wires.filter((w) => w.ticked).length;
  return (
    <div className={styles.view}>
      <div className={styles.sheet}>
        <div className={styles.top}>
          <h2 className={styles.title}>Build sheet</h2>
          <span className="quiet num">
            <span className={styles.printOnly}>{plan.name} · </span>
            {counted(wires.length, 'wire')}, {done} done
          </span>
        </div>
        <Actions plan={plan} sections={sections} errors={errors} onMode={onMode} />
        <OpenErrors plan={plan} errors={errors} />
        <OpenTerminals plan={plan} />
        <Changes plan={plan} />
        {sections.map((section) => (
          <section key={section.id} aria-label={SECTION_TEXT[section.id]}>
            <h3 className={styles.heading}>{SECTION_TEXT[section.id]}</h3>
            <ul className={styles.list}>
              {section.steps.map((step) => (
                <StepLine key={step.id} plan={plan} step={step} onTick={onTick} onPoint={setPointed} />
              ))}
            </ul>
          </section>
        ))}
        <BillTable bill={bill} />
      </div>
      <BoardPicture plan={plan} wires={wires} pointed={pointed ? stepPositions(plan, sheets, pointed) : []} />
    </div>
  );
}

/** The build sheet: everything to do, in the order to do it, with boxes to tick; step by step, as a wiring picture, and as a hole plan. */
export function BuildView() {
  const plan = useOpenPlan();
  const { sheets } = useWorkbench();
  const [params, setParams] = useSearchParams();
  const sections = useMemo(() => orThrow(buildSheet(plan, sheets), 'board sheet'), [plan, sheets]);
  const reviewed = useAppSelector(selectReviewed);
  const errors = useMemo(
    () => (reviewed?.result.ok ? errorTitles(reviewed.plan, sheets, reviewed.result.review.findings) : []),
    [reviewed, sheets],
  );
  const tick = useTicking(plan);
  const wires = sections.flatMap(({ steps }) => steps.flatMap(({ what }) => (what.is === 'wire' ? [what.wire] : [])));
  const close = () => setParams({}, { replace: true });
  if (wires.length === 0) return <Empty plan={plan} />;
  switch (params.get('mode')) {
    case 'steps':
      return <StepMode plan={plan} sections={sections} errors={errors} onTick={tick} onClose={close} />;
    case 'wiring':
      return <WiringView plan={plan} onClose={close} />;
    case 'holes':
      return <HoleView plan={plan} onClose={close} />;
    default:
      return <Sheet plan={plan} sections={sections} errors={errors} wires={wires} onMode={(mode) => setParams({ mode })} onTick={tick} />;
  }
}
