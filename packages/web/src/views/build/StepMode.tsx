import clsx from 'clsx';
import { atOrThrow } from '@roof-chart/core/collections/orThrow';
import { Button, Progress } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { IconArrowLeft, IconArrowRight, IconCheck } from '@tabler/icons-react';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { stepPositions } from '@roof-chart/core/outputs/stepPositions';
import type { BuildSection, BuildStep } from '@roof-chart/core/outputs/buildSheet';
import { partFace } from '@roof-chart/core/faces/partFace';
import { partOf } from '@roof-chart/core/plan/edit';
import { type Plan, splitKey, terminalKey } from '@roof-chart/core/plan/plan';
import { FacePicture } from '../../ui/face/Face';
import { useWakeLock } from '../../ui/useWakeLock';
import { useWorkbench } from '../../state/workbench';
import { WIRE_HEX } from '@roof-chart/core/outputs/wireHex';
import { BoardPicture } from './BoardPicture';
import { SECTION_TEXT, stepText } from '@roof-chart/core/text/views/buildText';
import styles from './Build.module.css';
import { OpenErrors } from './OpenErrors';

interface StepModeProps {
  readonly plan: Plan;
  readonly sections: readonly BuildSection[];
  readonly errors: readonly string[];
  readonly onTick: (step: BuildStep, done: boolean) => void;
  readonly onClose: () => void;
}

interface EndFaceProps {
  readonly plan: Plan;
  readonly placement: string;
  readonly terminal: string;
}

/** The part at one end of a wire with its terminal marked; the terminals of its other wires have their colours. */
function EndFace({ plan, placement, terminal }: EndFaceProps) {
  const { sheets } = useWorkbench();
  const part = partOf(plan, placement, sheets)?.sheet;
  const filled = useMemo(
    () =>
      new Map(
        (part?.terminals.list ?? []).flatMap(({ id }) => {
          const own = plan.wires[terminalKey(placement, id)];
          return own ? [[id, WIRE_HEX[own.colour]] as const] : [];
        }),
      ),
    [part, plan.wires, placement],
  );
  return part ? <FacePicture face={partFace(part)} lit={[terminal]} filled={filled} /> : null;
}

/** The terminals at which a step has to do with parts: the ends of a wire or of a component. */
function terminalsOfStep({ what }: BuildStep): readonly (readonly [placement: string, terminal: string])[] {
  if (what.is === 'wire') {
    const { placement, terminal } = splitKey(what.wire.key);
    const { end } = what.wire;
    return [[placement, terminal], ...(end.to === 'terminal' ? [[end.placement, end.terminal] as const] : [])];
  }
  if (what.is !== 'component') return [];
  return what.component.ends.flatMap(({ at }) => (at.to === 'terminal' ? [[at.placement, at.terminal] as const] : []));
}

/** The parts at the ends of a step, two at most; an end at the board is marked on its own picture. */
function EndFaces({ plan, step }: { readonly plan: Plan; readonly step: BuildStep }) {
  const ends = terminalsOfStep(step).slice(0, 2);
  if (ends.length === 0) return null;
  return (
    <div className={styles.stepFace}>
      {ends.map(([placement, terminal]) => (
        <EndFace key={`${placement}:${terminal}`} plan={plan} placement={placement} terminal={terminal} />
      ))}
    </div>
  );
}

interface Keys {
  readonly go: (by: 1 | -1) => void;
  readonly finish: () => void;
  readonly close: () => void;
}

/** Arrow keys, Enter and Space, wherever the focus is but on a button or field; Escape everywhere. */
function useStepKeys({ go, finish, close }: Keys): void {
  useHotkeys(
    [
      ['ArrowRight', () => go(1)],
      ['ArrowLeft', () => go(-1)],
      ['Enter', finish],
      ['Space', finish],
    ],
    ['INPUT', 'TEXTAREA', 'SELECT', 'BUTTON'],
  );
  useHotkeys([['Escape', close]], []);
}

/** Where the step is in the pictures of Build. */
function ToPictures({ plan, step, inHoles }: { readonly plan: Plan; readonly step: BuildStep; readonly inHoles: boolean }) {
  const mark = step.what.is === 'wire' ? `&mark=${encodeURIComponent(`wire ${step.what.wire.key}`)}` : '';
  return (
    <>
      {mark !== '' && (
        <Link className={styles.toPicture} to={`/plans/${plan.id}/build?mode=wiring${mark}`}>
          Show in the wiring picture
        </Link>
      )}
      {inHoles && (
        <Link className={styles.toPicture} to={`/plans/${plan.id}/build?mode=holes${mark}`}>
          Show in the hole plan
        </Link>
      )}
    </>
  );
}

interface StepCardProps {
  readonly plan: Plan;
  readonly step: BuildStep;
  readonly section: BuildSection;
}

/** What is to be done in a step. */
function StepCard({ plan, step, section }: StepCardProps) {
  const { sheets } = useWorkbench();
  const staysOn = useWakeLock();
  const { head, text, detail, holes } = stepText(plan, sheets, step);
  return (
    <div className={styles.stepCard} aria-live="polite">
      <p className={styles.stepSection}>{SECTION_TEXT[section.id]}</p>
      <h2 className={styles.stepHead}>
        {step.what.is === 'wire' && (
          <span className={styles.stepColour} style={{ background: WIRE_HEX[step.what.wire.colour] }} aria-hidden />
        )}
        {head}
      </h2>
      <p className={styles.stepText}>{text}</p>
      {holes && <p className={clsx('num', styles.stepHoles)}>{holes}</p>}
      {detail && <p className={styles.stepDetail}>{detail}</p>}
      <p className={styles.stepState}>
        {step.done && 'Done'}
        {staysOn && <span className={styles.staysOn}>The screen stays on.</span>}
      </p>
      <ToPictures plan={plan} step={step} inHoles={holes !== undefined} />
    </div>
  );
}

interface StepButtonsProps {
  readonly isDone: boolean;
  readonly isFirst: boolean;
  readonly isLast: boolean;
  readonly onGo: (by: 1 | -1) => void;
  readonly onFinish: () => void;
  readonly onUndo: () => void;
}

function StepButtons({ isDone, isFirst, isLast, onGo, onFinish, onUndo }: StepButtonsProps) {
  return (
    <div className={styles.stepButtons}>
      <Button size="xl" variant="default" leftSection={<IconArrowLeft />} disabled={isFirst} onClick={() => onGo(-1)}>
        Back
      </Button>
      {isDone && (
        <Button size="xl" variant="default" onClick={onUndo}>
          Mark as not done
        </Button>
      )}
      <Button size="xl" variant="default" disabled={isLast} onClick={() => onGo(1)}>
        Skip
      </Button>
      <Button size="xl" leftSection={isDone ? <IconArrowRight /> : <IconCheck />} onClick={onFinish} disabled={isDone && isLast}>
        {isDone ? 'Next' : 'Done'}
      </Button>
    </div>
  );
}

/** One step at a time in large type, for a tablet on the bench. Nothing depends on hovering. */
export function StepMode({ plan, sections, errors, onTick, onClose }: StepModeProps) {
  const { sheets } = useWorkbench();
  const all = sections.flatMap((section) => section.steps.map((step) => ({ step, section })));
  const last = all.length - 1;
  const [wanted, setWanted] = useState(() =>
    Math.max(
      0,
      all.findIndex(({ step }) => !step.done),
    ),
  );
  const at = Math.min(wanted, last);
  const { step, section } = atOrThrow(all, at);
  const done = all.filter((one) => one.step.done).length;
  const wires = all.flatMap((one) => (one.step.what.is === 'wire' ? [one.step.what.wire] : []));
  const go = (by: 1 | -1) => setWanted(Math.min(last, Math.max(0, at + by)));
  const finish = () => {
    if (!step.done) onTick(step, true);
    go(1);
  };
  useStepKeys({ go, finish, close: onClose });
  return (
    <div className={styles.steps} role="region" aria-label="Step by step">
      <div className={styles.stepTop}>
        <span className="num">
          Step {at + 1} of {all.length}, {done} done
        </span>
        <Progress
          className={clsx(styles.stepBar)}
          value={(100 * done) / all.length}
          size="sm"
          aria-label="Progress"
          transitionDuration={0}
        />
        <Button variant="default" size="md" onClick={onClose}>
          Full list
        </Button>
      </div>
      <OpenErrors plan={plan} errors={errors} brief />
      <div className={styles.stepMain} tabIndex={0} role="group" aria-label="Current step">
        <StepCard plan={plan} step={step} section={section} />
        <EndFaces plan={plan} step={step} />
        <BoardPicture plan={plan} wires={wires} pointed={stepPositions(plan, sheets, step)} />
      </div>
      <StepButtons
        isDone={step.done}
        isFirst={at === 0}
        isLast={at >= last}
        onGo={go}
        onFinish={finish}
        onUndo={() => onTick(step, false)}
      />
    </div>
  );
}
