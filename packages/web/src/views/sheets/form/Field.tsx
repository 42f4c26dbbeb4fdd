import { Checkbox, MultiSelect, NativeSelect, Textarea, TextInput } from '@mantine/core';
import { type FieldProps, useForm } from './FormContext';
import { ListField, MapField, ObjectField, VariantField } from './Groups';
import { fieldId, type Json, type Shape } from '../../../state/sheetShape';

const LONG = 100;
const isWord = (shape: Shape): boolean => shape.type === 'string' && (shape.maxLength ?? 0) < LONG;

/** Numbers are kept as numbers; other text is kept as typed and reported as a fault. */
function typedNumber(text: string, required: boolean): Json | undefined {
  const typed = text.trim();
  if (typed === '') return required ? '' : undefined;
  const value = Number(typed);
  return Number.isFinite(value) ? value : text;
}

const ORDER: ('label' | 'input' | 'error' | 'description')[] = ['label', 'input', 'error', 'description'];

function useCommon({ shape, name, steps, required }: FieldProps) {
  const { faults } = useForm();
  const id = fieldId(steps);
  return {
    id,
    label: shape.title ?? name,
    description: shape.description,
    error: faults.get(id),
    size: 'xs' as const,
    // Help below the input keeps the inputs of a row level.
    inputWrapperOrder: ORDER,
    withAsterisk: required,
  };
}

function ChoiceField(props: FieldProps) {
  const { shape, value, required, onChange } = props;
  const common = useCommon(props);
  const words = shape.type === 'boolean' ? [true, false] : (shape.enum ?? []);
  if (shape.enum?.length === 1 && typeof shape.enum[0] === 'boolean')
    return (
      <Checkbox
        id={common.id}
        label={common.label}
        description={common.description}
        size="xs"
        error={common.error}
        checked={value === true}
        onChange={(event) => onChange(event.currentTarget.checked || undefined)}
      />
    );
  const said = (word: unknown) => (word === true ? 'yes' : word === false ? 'no' : String(word).replaceAll('-', ' '));
  const data = words.map((word) => ({ value: JSON.stringify(word), label: said(word) }));
  const known = value !== undefined && words.includes(value);
  return (
    <NativeSelect
      {...common}
      data={[...(required && known ? [] : [{ value: '', label: '(not stated)' }]), ...data]}
      value={known ? JSON.stringify(value) : ''}
      onChange={(event) => onChange(event.currentTarget.value === '' ? undefined : (JSON.parse(event.currentTarget.value) as Json))}
    />
  );
}

function TextField(props: FieldProps) {
  const { shape, value, required, onChange } = props;
  const common = useCommon(props);
  const text = value === undefined || typeof value === 'object' ? '' : String(value);
  const numeric = shape.type === 'number' || shape.type === 'integer';
  const change = (typed: string) => onChange(numeric ? typedNumber(typed, required) : typed === '' && !required ? undefined : typed);
  if (!numeric && !isWord(shape))
    return <Textarea {...common} autosize minRows={1} value={text} onChange={(event) => change(event.currentTarget.value)} />;
  return (
    <TextInput {...common} inputMode={numeric ? 'decimal' : 'text'} value={text} onChange={(event) => change(event.currentTarget.value)} />
  );
}

/** A short list of words or numbers on one line. */
function WordsField(props: FieldProps) {
  const { shape, value, required, onChange } = props;
  const common = useCommon(props);
  const { enum: words } = shape.items as Shape;
  const members = Array.isArray(value) ? (value as readonly Json[]) : [];
  const keep = (next: readonly Json[]) => onChange(next.length === 0 && !required ? undefined : next);
  if (words)
    return (
      <MultiSelect
        {...common}
        data={words.map(String)}
        value={members.map(String)}
        onChange={(chosen) => keep(words.filter((word) => chosen.includes(String(word))) as readonly Json[])}
      />
    );
  return (
    <TextInput
      {...common}
      placeholder="comma-separated"
      // Ends are left as typed, so that a comma can be typed at all.
      value={members.map(String).join(',')}
      onChange={(event) =>
        keep(
          event.currentTarget.value === ''
            ? []
            : event.currentTarget.value.split(',').map((word, at) => (at === 0 ? word : word.replace(/^ /, ''))),
        )
      }
    />
  );
}

/** The field of one fact, whatever its kind: chosen by the published shape, so that no fact is without one. */
export function Field(props: FieldProps) {
  const { shape } = props;
  // Words that can only be one thing are no choice.
  if (shape.enum?.length === 1 && typeof shape.enum[0] !== 'boolean' && props.required) return null;
  if (shape.enum || shape.type === 'boolean') return <ChoiceField {...props} />;
  if (shape.anyOf) return <VariantField {...props} />;
  if (shape.patternProperties) return <MapField {...props} />;
  if (shape.type === 'object') return <ObjectField {...props} />;
  if (shape.type === 'array') {
    const items = shape.items || undefined;
    return items && (items.enum || isWord(items)) ? <WordsField {...props} /> : <ListField {...props} />;
  }
  return <TextField {...props} />;
}
