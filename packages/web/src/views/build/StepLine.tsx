import clsx from 'clsx';
import { ActionIcon, Checkbox } from '@mantine/core';
import { IconLock, IconNote } from '@tabler/icons-react';
import { useState } from 'react';
import { placementText } from '@roof-chart/core/text/names';
import type { BuildWire } from '@roof-chart/core/outputs/buildList';
import type { BuildStep } from '@roof-chart/core/outputs/buildSheet';
import type { Plan } from '@roof-chart/core/plan/plan';
import { Unbroken } from '../../ui/Unbroken';
import { wireEndText } from '@roof-chart/core/text/wireEndText';
import { useWorkbench } from '../../state/workbench';
import { WireBar } from '../../ui/WireBar';
import { stepText, throughText, whereText, buildWireEndText } from '@roof-chart/core/text/views/buildText';
import styles from './Build.module.css';
import { ComponentMenu } from './ComponentMenu';
import { WireNoteForm } from './WireNoteForm';
import { Hint } from '../../ui/Hint';

interface StepLineProps {
  readonly plan: Plan;
  readonly step: BuildStep;
  readonly onTick: (step: BuildStep, done: boolean) => void;
  readonly onPoint: (step: BuildStep | null) => void;
}

function WireLine({ plan, step, wire, onTick, onPoint }: StepLineProps & { readonly wire: BuildWire }) {
  const { sheets } = useWorkbench();
  const name = placementText(plan, wire.placement);
  const to = buildWireEndText(plan, sheets, wire);
  const { holes } = stepText(plan, sheets, step);
  const [isNoting, setNoting] = useState(false);
  const was = wire.wasAt ? wireEndText(plan, sheets, wire.wasAt) : wire.wasIn;
  return (
    <li className={wire.ticked ? styles.tickedLine : styles.line} onMouseEnter={() => onPoint(step)} onMouseLeave={() => onPoint(null)}>
      <Checkbox
        checked={wire.ticked}
        aria-label={`${name} ${wire.label} to ${to}: done`}
        color="dark.6"
        onChange={(event) => onTick(step, event.currentTarget.checked)}
        onFocus={() => onPoint(step)}
      />
      <WireBar colour={wire.colour} />
      <span className={styles.part}>{name}</span>
      <span className={styles.label}>{wire.label}</span>
      <span className={styles.arrow}>→</span>
      <span className={styles.to}>
        {throughText(wire) && `${throughText(wire)}, then `}
        {to} {wire.locked && <IconLock size={13} aria-label="locked" />}
      </span>
      <span className={styles.where}>
        {holes && <strong className={clsx('num', styles.holes)}>{holes}</strong>}
        {wire.colour} · module pin {wire.number}
        {!holes && ` · ${whereText(wire)}`}
        {wire.note && (
          <span className={wire.noteHolds ? styles.found : 'quiet'}>
            · {wire.noteHolds ? 'Confirmed' : `Found at ${wireEndText(plan, sheets, wire.note.end)}`} {wire.note.date}: {wire.note.words}
          </span>
        )}
        {was !== undefined && <strong className={styles.moved}> Moved since it was marked done: was {was}.</strong>}
      </span>
      <Hint label="Bench note">
        <ActionIcon
          className={clsx(styles.noteButton)}
          size="sm"
          aria-label={`Bench note on ${name} ${wire.label}`}
          onClick={() => setNoting(true)}
        >
          <IconNote size={15} />
        </ActionIcon>
      </Hint>
      {isNoting && <WireNoteForm plan={plan} wire={wire} onClose={() => setNoting(false)} />}
    </li>
  );
}

/** One step of the build sheet with its box. */
export function StepLine(props: StepLineProps) {
  const { plan, step, onTick, onPoint } = props;
  const { sheets } = useWorkbench();
  if (step.what.is === 'wire') return <WireLine {...props} wire={step.what.wire} />;
  const { head, text, detail, holes } = stepText(plan, sheets, step);
  return (
    <li className={step.done ? styles.tickedOther : styles.other} onMouseEnter={() => onPoint(step)} onMouseLeave={() => onPoint(null)}>
      <Checkbox
        checked={step.done}
        onFocus={() => onPoint(step)}
        aria-label={`${head}: ${text}: done`}
        color="dark.6"
        onChange={(event) => onTick(step, event.currentTarget.checked)}
      />
      <span>
        <strong>{head}</strong>: <Unbroken text={text} />
        {holes && <strong className={clsx('num', styles.holes)}> {holes}</strong>}
        {detail && (
          <span className="quiet">
            {text.endsWith('.') ? ' ' : ' · '}
            <Unbroken text={detail} />
          </span>
        )}
      </span>
      {step.what.is === 'component' && <ComponentMenu plan={plan} component={step.what.component} />}
    </li>
  );
}
