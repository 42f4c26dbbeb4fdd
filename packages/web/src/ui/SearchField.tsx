import { TextInput, type TextInputProps } from '@mantine/core';
import { IconSearch } from '@tabler/icons-react';
import type { Ref } from 'react';

interface SearchFieldProps extends Omit<TextInputProps, 'label' | 'leftSection' | 'onChange'> {
  /** What is searched, for those who do not see the field: "Search parts". */
  readonly label: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
  readonly ref?: Ref<HTMLInputElement>;
}

/** A field that narrows the list under it as one types. */
export function SearchField({ label, onChange, ...others }: SearchFieldProps) {
  return (
    <TextInput
      aria-label={label}
      leftSection={<IconSearch size={14} aria-hidden />}
      maxLength={120}
      onChange={(event) => onChange(event.currentTarget.value)}
      {...others}
    />
  );
}
