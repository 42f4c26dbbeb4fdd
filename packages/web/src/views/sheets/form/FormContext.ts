import { type ComponentType, createContext, useContext } from 'react';
import type { Json, Shape } from '../../../state/sheetShape';

type Steps = readonly (string | number)[];

export interface FieldProps {
  readonly shape: Shape;
  readonly name: string;
  readonly steps: Steps;
  readonly value: Json | undefined;
  readonly required: boolean;
  /** `undefined` leaves the fact out. */
  readonly onChange: (value: Json | undefined) => void;
}

export interface FormContextValue {
  /** The field of any fact; groups have fields in them, and fields may be groups. */
  readonly Field: ComponentType<FieldProps>;
  /** What is wrong at a field, by its id. */
  readonly faults: ReadonlyMap<string, string>;
  /** Lists that lead to this field are opened. */
  readonly shown: string;
}

export const FormContext = createContext<FormContextValue | null>(null);

export function useForm(): FormContextValue {
  const form = useContext(FormContext);
  if (!form) throw new Error('useForm outside of a sheet form');
  return form;
}
