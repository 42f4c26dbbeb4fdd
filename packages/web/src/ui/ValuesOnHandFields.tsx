import { dequal } from 'dequal';
import { NativeSelect, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { ValuesOnHand } from '@roof-chart/core/plan/plan';
import { PLAN_LIMITS } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import { SERIES } from '@roof-chart/core/quantity/series';
import { useWorkbench } from '../state/workbench';
import { readOhms } from './busSettings';

type SeriesName = ValuesOnHand['series'];
const OWN = 'own' as const;

/** Resistor values on hand: a series, or a custom list. */
export function ValuesOnHandFields({ onHand }: { readonly onHand: ValuesOnHand }) {
  const { edit } = useWorkbench();
  const listed = (onHand.own ?? []).map((ohms) => formatSi(ohms, '').replace(/\s/g, '')).join(' ');
  const [own, setOwn] = useState(onHand.series === OWN);
  const [problem, setProblem] = useState<string | null>(null);
  const take = (next: ValuesOnHand) => {
    if (!dequal(next, onHand)) edit([{ kind: 'values-on-hand', valuesOnHand: next }]);
  };
  return (
    <>
      <NativeSelect
        size="xs"
        label="Values on hand"
        value={own ? OWN : onHand.series}
        data={[...Object.keys(SERIES).map((name) => ({ value: name, label: `${name} values` })), { value: OWN, label: 'own list' }]}
        onChange={(event) => {
          const series = event.currentTarget.value as SeriesName;
          setOwn(series === OWN);
          setProblem(null);
          if (series !== OWN || onHand.own) take({ ...onHand, series });
        }}
      />
      {own && (
        <TextInput
          size="xs"
          label="Own values"
          placeholder="330 1k 4k7 10k"
          defaultValue={listed}
          error={problem}
          onBlur={(event) => {
            const { values, bad } = readOhms(event.currentTarget.value);
            if (bad !== undefined) return setProblem(`${bad} is not a resistance. Example: 4k7`);
            if (values.length === 0) return setProblem('Enter at least one value');
            if (values.length > PLAN_LIMITS.valuesOnHand) return setProblem(`At most ${PLAN_LIMITS.valuesOnHand} values`);
            setProblem(null);
            take({ series: OWN, own: values });
          }}
        />
      )}
    </>
  );
}
