import clsx from 'clsx';
import { entryOrThrow } from '@roof-chart/core/collections/orThrow';
import { ActionIcon, Button, NativeSelect, Popover, TextInput } from '@mantine/core';
import { IconPencil } from '@tabler/icons-react';
import { useState } from 'react';
import type { Component } from '@roof-chart/core/electrics/reports/components';
import { LEG_ORDERS, type Plan, splitKey } from '@roof-chart/core/plan/plan';
import { useWorkbench } from '../../state/workbench';
import styles from './Build.module.css';

interface ComponentMenuProps {
  readonly plan: Plan;
  readonly component: Component;
}

/** A reference designator as it may be typed. */
const REFERENCE = /^[A-Z]{1,3}[0-9]{1,4}$/;

/** The order of the legs of the transistor on hand. */
function LegOrder({ plan, component: { key, transistor } }: ComponentMenuProps) {
  const { edit } = useWorkbench();
  if (!transistor || key === undefined) return null;
  const orders = transistor.kind.endsWith('mos') ? LEG_ORDERS.fieldEffect : LEG_ORDERS.bipolar;
  const { legs: _before, ...driver } = entryOrThrow(plan.drivers, key);
  const choose = (legs: string) => edit([{ kind: 'driver', ...splitKey(key), driver: legs === '' ? driver : { ...driver, legs } }]);
  return (
    <NativeSelect
      size="xs"
      label="Legs, flat side towards you"
      value={transistor.legs ?? ''}
      data={[{ value: '', label: 'not stated' }, ...orders.map((legs) => ({ value: legs, label: [...legs].join(' ') }))]}
      onChange={(event) => choose(event.currentTarget.value)}
    />
  );
}

/** Renames a component, and states the legs of a transistor. */
export function ComponentMenu({ plan, component }: ComponentMenuProps) {
  const { edit } = useWorkbench();
  const [isOpen, setOpen] = useState(false);
  const [typed, setTyped] = useState(component.name);
  const name = typed.trim().toUpperCase();
  const isWrong = !REFERENCE.test(name);
  const rename = () => {
    if (isWrong) return;
    if (name !== component.name) edit([{ kind: 'reference', component: component.id, name }]);
    setOpen(false);
  };
  return (
    <Popover opened={isOpen} onChange={setOpen} position="bottom-end" withinPortal trapFocus transitionProps={{ duration: 0 }}>
      <Popover.Target>
        <ActionIcon
          className={clsx(styles.noteButton)}
          size="sm"
          aria-label={`Edit ${component.name}`}
          title={component.transistor ? 'Name and legs' : 'Name'}
          onClick={() => {
            setTyped(component.name);
            setOpen(!isOpen);
          }}
        >
          <IconPencil size={15} />
        </ActionIcon>
      </Popover.Target>
      <Popover.Dropdown>
        <form
          className={styles.componentForm}
          onSubmit={(event) => {
            event.preventDefault();
            rename();
          }}
        >
          <TextInput
            size="xs"
            label="Reference designator"
            value={typed}
            error={isWrong ? 'Use a name such as R3 or RV1' : undefined}
            onChange={(event) => setTyped(event.currentTarget.value)}
          />
          <LegOrder plan={plan} component={component} />
          <Button type="submit" size="xs" disabled={isWrong}>
            Rename
          </Button>
        </form>
      </Popover.Dropdown>
    </Popover>
  );
}
