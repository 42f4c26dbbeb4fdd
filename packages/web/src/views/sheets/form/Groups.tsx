import clsx from 'clsx';
import { atOrThrow, firstOrThrow } from '@roof-chart/core/collections/orThrow';
import { ActionIcon, Button, NativeSelect, TextInput } from '@mantine/core';
import { IconArrowDown, IconArrowUp, IconX } from '@tabler/icons-react';
import { type ReactNode, useState } from 'react';
import styles from '../Sheets.module.css';
import { type FieldProps, useForm } from './FormContext';
import {
  blankOf,
  fieldId,
  isObject,
  type Json,
  type JsonObject,
  memberName,
  type Shape,
  shapeAt,
  shapeName,
} from '../../../state/sheetShape';

function without(value: JsonObject, key: string): JsonObject {
  const { [key]: _, ...rest } = value;
  return rest;
}

const labelOf = ({ shape, name }: Pick<FieldProps, 'shape' | 'name'>): string => shape.title ?? name;

const isGroup = (shape: Shape): boolean =>
  Boolean(shape.properties ?? shape.patternProperties ?? shape.anyOf) ||
  (shape.type === 'array' && typeof shape.items === 'object' && Boolean(shape.items.properties));

/** The fields of an object: single facts side by side, groups below them. */
export function Members({
  shape,
  steps,
  value,
  onChange,
}: Pick<FieldProps, 'shape' | 'steps'> & { readonly value: JsonObject; readonly onChange: (value: JsonObject) => void }) {
  const { Field } = useForm();
  const fields = Object.entries(shape.properties ?? {});
  const field = ([key, inner]: readonly [string, Shape]) => (
    <Field
      key={key}
      shape={inner}
      name={key}
      steps={[...steps, key]}
      value={value[key]}
      required={shape.required?.includes(key) ?? false}
      onChange={(next) => onChange(next === undefined ? without(value, key) : { ...value, [key]: next })}
    />
  );
  const single = fields.filter(([, inner]) => !isGroup(inner));
  return (
    <>
      {single.length > 0 && <div className={styles.fields}>{single.map(field)}</div>}
      {fields.filter(([, inner]) => isGroup(inner)).map(field)}
    </>
  );
}

function Fault({ steps }: Pick<FieldProps, 'steps'>) {
  const fault = useForm().faults.get(fieldId(steps));
  return fault === undefined ? null : <p className={styles.fieldFault}>{fault}</p>;
}

/** A folded part of the form; what is inside is drawn only while it is open: a board has forty pins of twenty facts. */
function Fold({
  steps,
  summary,
  actions,
  children,
}: Pick<FieldProps, 'steps'> & { readonly summary: ReactNode; readonly actions?: ReactNode; readonly children: () => ReactNode }) {
  const { faults, shown } = useForm();
  const id = fieldId(steps);
  const inside = (other: string) => other === id || other.startsWith(`${id}-`);
  const [own, setOwn] = useState<{ readonly open: boolean; readonly shown: string } | null>(null);
  // Going to a fault opens its folds; opening or closing by hand holds until the next fault.
  const open = own && own.shown === shown ? own.open : inside(shown);
  const faulty = [...faults.keys()].some(inside);
  return (
    <div className={styles.foldRow}>
      <details className={styles.fold} open={open} id={id}>
        <summary
          onClick={(event) => {
            event.preventDefault();
            setOwn({ open: !open, shown });
          }}
        >
          <span>{summary}</span>
          {faulty && <span className={styles.foldFault}>fault inside</span>}
        </summary>
        {open && (
          <div className={styles.foldBody}>
            <Fault steps={steps} />
            {children()}
          </div>
        )}
      </details>
      {actions && <span className={styles.foldActions}>{actions}</span>}
    </div>
  );
}

function Absent({ label, onAdd }: { readonly label: string; readonly onAdd: () => void }) {
  return (
    <Button size="compact-xs" variant="subtle" className={clsx(styles.addFact)} onClick={onAdd}>
      + {label}
    </Button>
  );
}

/** A group of facts. An optional group is added and removed as a whole. */
export function ObjectField(props: FieldProps) {
  const { shape, steps, value, required, onChange } = props;
  const label = labelOf(props);
  if (value === undefined && !required) return <Absent label={label} onAdd={() => onChange(blankOf(shape))} />;
  const object = isObject(value) ? value : {};
  const body = () => <Members shape={shape} steps={steps} value={object} onChange={onChange} />;
  const short = Object.keys(shape.properties ?? {}).length <= 4 && !Object.values(shape.properties ?? {}).some(isGroup);
  const remove = !required && (
    <Button
      size="compact-xs"
      variant="subtle"
      color="gray"
      c="var(--quiet)"
      onClick={() => onChange(undefined)}
      aria-label={`Remove ${label}`}
    >
      Remove
    </Button>
  );
  if (!short)
    return (
      <Fold steps={steps} summary={label} actions={remove || undefined}>
        {body}
      </Fold>
    );
  return (
    <fieldset className={styles.inlineGroup} id={fieldId(steps)} tabIndex={-1}>
      <legend>{label}</legend>
      <Fault steps={steps} />
      {body()}
      {remove}
    </fieldset>
  );
}

/** A fact that comes in several shapes, of which one is chosen. */
export function VariantField(props: FieldProps) {
  const { shape, steps, value, required, onChange } = props;
  const label = labelOf(props);
  const { anyOf: shapes = [] } = shape;
  if (value === undefined && !required) return <Absent label={label} onAdd={() => onChange(blankOf(firstOrThrow(shapes)))} />;
  const at = shapeAt(shapes, value);
  return (
    <fieldset className={styles.inlineGroup} id={fieldId(steps)} tabIndex={-1}>
      <legend>{label}</legend>
      <Fault steps={steps} />
      <NativeSelect
        size="xs"
        aria-label={`Kind of ${label}`}
        data={[
          ...shapes.map((one, n) => ({ value: String(n), label: shapeName(one) })),
          ...(required ? [] : [{ value: '', label: '(not stated)' }]),
        ]}
        value={String(at)}
        onChange={(event) =>
          onChange(event.currentTarget.value === '' ? undefined : blankOf(atOrThrow(shapes, Number(event.currentTarget.value))))
        }
      />
      <Members shape={atOrThrow(shapes, at)} steps={steps} value={isObject(value) ? value : {}} onChange={onChange} />
    </fieldset>
  );
}

function moved(list: readonly Json[], at: number, by: number): readonly Json[] {
  const member = atOrThrow(list, at);
  return list.toSpliced(at, 1).toSpliced(at + by, 0, member);
}

function Mover({
  what,
  at,
  count,
  onMove,
  onRemove,
}: {
  readonly what: string;
  readonly at: number;
  readonly count: number;
  readonly onMove: (by: 1 | -1) => void;
  readonly onRemove: () => void;
}) {
  return (
    <>
      <ActionIcon size={24} disabled={at === 0} aria-label={`Move ${what} up`} onClick={() => onMove(-1)}>
        <IconArrowUp size={14} />
      </ActionIcon>
      <ActionIcon size={24} disabled={at === count - 1} aria-label={`Move ${what} down`} onClick={() => onMove(1)}>
        <IconArrowDown size={14} />
      </ActionIcon>
      <ActionIcon size={24} aria-label={`Remove ${what}`} onClick={onRemove}>
        <IconX size={14} />
      </ActionIcon>
    </>
  );
}

/** A list, member by member. */
export function ListField({ shape, name, steps, value, required, onChange }: FieldProps) {
  const { Field } = useForm();
  const list = Array.isArray(value) ? (value as readonly Json[]) : [];
  const fixed = shape.prefixItems;
  const itemOf = (at: number): Shape => fixed?.[at] ?? (shape.items || {});
  const keep = (next: readonly Json[]) => onChange(next.length === 0 && !required ? undefined : next);
  const set = (at: number, next: Json | undefined) => keep(list.with(at, next ?? ''));
  const title = labelOf({ shape, name });
  const member = (at: number) => {
    const field = (
      <Field
        key={at}
        shape={itemOf(at)}
        name={String(at + 1)}
        steps={[...steps, at]}
        value={list[at]}
        required
        onChange={(next) => set(at, next)}
      />
    );
    const what = name === 'list' ? memberName(atOrThrow(list, at), at) : `${title} ${memberName(atOrThrow(list, at), at)}`;
    const mover = !fixed && (
      <Mover
        what={what}
        at={at}
        count={list.length}
        onMove={(by) => keep(moved(list, at, by))}
        onRemove={() => keep(list.toSpliced(at, 1))}
      />
    );
    const inner = itemOf(at);
    if (!inner.properties)
      return (
        <div key={at} className={styles.listRow}>
          {field}
          {mover}
        </div>
      );
    const object = atOrThrow(list, at);
    return (
      <Fold key={at} steps={[...steps, at]} summary={<span className="mono">{memberName(object, at)}</span>} actions={mover || undefined}>
        {() => <Members shape={inner} steps={[...steps, at]} value={isObject(object) ? object : {}} onChange={(next) => set(at, next)} />}
      </Fold>
    );
  };
  return (
    <section className={styles.listField} id={fieldId(steps)} tabIndex={-1} aria-label={title}>
      <div className={styles.listTitle}>
        {title} <span className="quiet num">{list.length}</span>
      </div>
      <Fault steps={steps} />
      {list.map((_, at) => member(at))}
      {!fixed && (
        <Button size="compact-xs" variant="default" onClick={() => keep([...list, blankOf(itemOf(list.length))])}>
          {name === 'list' ? 'Add an entry' : `Add to ${title}`}
        </Button>
      )}
    </section>
  );
}

/** Facts by name, where the names are the sheet's own (strap states, pins of a set). */
export function MapField({ shape, name, steps, value, onChange }: FieldProps) {
  const { Field } = useForm();
  const title = labelOf({ shape, name });
  const inner = firstOrThrow(Object.values(shape.patternProperties ?? {}));
  const entries = Object.entries(isObject(value) ? value : {});
  const rename = (at: number, key: string) => onChange(Object.fromEntries(entries.map(([k, v], n) => [n === at ? key : k, v])));
  return (
    <section className={styles.listField} id={fieldId(steps)} tabIndex={-1} aria-label={title}>
      <div className={styles.listTitle}>{title}</div>
      <Fault steps={steps} />
      {entries.map(([key, member], at) => (
        <div key={at} className={styles.listRow}>
          <TextInput
            size="xs"
            aria-label={`Name ${at + 1} in ${title}`}
            value={key}
            onChange={(event) => rename(at, event.currentTarget.value)}
          />
          <Field
            shape={inner}
            name={key}
            steps={[...steps, key]}
            value={member}
            required
            onChange={(next) => onChange({ ...(value as JsonObject), [key]: next ?? '' })}
          />
          <ActionIcon size={24} aria-label={`Remove ${key}`} onClick={() => onChange(without(value as JsonObject, key))}>
            <IconX size={14} />
          </ActionIcon>
        </div>
      ))}
      <Button
        size="compact-xs"
        variant="default"
        disabled={entries.some(([key]) => key === 'new')}
        onClick={() => onChange({ ...(isObject(value) ? value : {}), new: blankOf(inner) })}
      >
        Add to {title}
      </Button>
    </section>
  );
}
