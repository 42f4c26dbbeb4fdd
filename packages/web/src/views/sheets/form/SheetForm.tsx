import { getOrThrow } from '@roof-chart/core/collections/orThrow';
import { useEffect, useMemo } from 'react';
import { useSheetSchemaQuery } from '../../../state/api';
import styles from '../Sheets.module.css';
import { Field } from './Field';
import { FormContext } from './FormContext';
import { Members } from './Groups';
import { fieldId, type JsonObject, stepsOf } from '../../../state/sheetShape';

interface SheetFormProps {
  readonly document: JsonObject;
  readonly faults: readonly { readonly path: string; readonly fault: string }[];
  /** The path of the chosen fault; `n` counts the choices. */
  readonly shown: { readonly path: string; readonly n: number };
  readonly onChange: (document: JsonObject) => void;
}

/** A field for every fact in the published schema, with its fault beside it. */
export function SheetForm({ document: sheet, faults, shown, onChange }: SheetFormProps) {
  // From the server: the validator's browser build cannot tell its own shape.
  const { data: shape, isError } = useSheetSchemaQuery(sheet['kind'] === 'board' ? 'board' : 'part');
  const context = useMemo(() => {
    const byField = new Map<string, string>();
    for (const { path, fault } of faults) {
      const id = fieldId(stepsOf(sheet, path));
      const words = fault.replace(/^"[^"]*" /, '');
      byField.set(id, byField.has(id) ? `${getOrThrow(byField, id)}; ${words}` : words);
    }
    return { Field, faults: byField, shown: shown.path === '' ? '' : fieldId(stepsOf(sheet, shown.path)) };
  }, [sheet, faults, shown]);
  useEffect(() => {
    if (shown.n === 0) return;
    const field = document.getElementById(context.shown);
    field?.scrollIntoView({ block: 'center' });
    field?.focus();
    // Only when a fault is gone to (or the fields come later than that): typing must not move the focus.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [shown, shape]);
  return (
    <FormContext.Provider value={context}>
      <div className={styles.form}>
        {shape ? (
          <Members shape={shape} steps={[]} value={sheet} onChange={onChange} />
        ) : (
          <p className="quiet">
            {isError ? 'The server is not responding, so the fields cannot be loaded. You can still edit the text.' : 'Loading the fields…'}
          </p>
        )}
      </div>
    </FormContext.Provider>
  );
}
