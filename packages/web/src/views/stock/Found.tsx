import { firstOrThrow } from '@roof-chart/core/collections/orThrow';
import { UnstyledButton } from '@mantine/core';
import { memo, type ReactNode, useState } from 'react';
import { counted } from '@roof-chart/core/quantity/format';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { CompleteAddition } from '@roof-chart/core/review/additionNeeds';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { partFace } from '@roof-chart/core/faces/partFace';
import { FacePicture } from '../../ui/face/Face';
import { AddButtons } from './AddButtons';
import { Consequence } from './Consequence';
import styles from './Stock.module.css';
import { addressText, BUS_TEXT, moduleText, supplyText } from '@roof-chart/core/text/partText';
import { useAdditions } from './useAdditions';

/** The forms of one thing side by side, each with what it would do to this plan. */
function Variants({ plan, parts, count }: { readonly plan: Plan; readonly parts: readonly PartSheet[]; readonly count: number }) {
  const additions = useAdditions(
    plan,
    parts.map((p) => p.id),
  );
  const rows: readonly (readonly [string, (part: PartSheet) => ReactNode])[] = [
    ['Connection', (part) => `${BUS_TEXT[part.bus.kind]}, ${counted(part.terminals.list.length, 'pin')}`],
    ['Labels', (part) => <span className={styles.labels}>{part.terminals.list.map((t) => t.label).join(' ')}</span>],
    ['Supply', (part) => <span className="num">{supplyText(part)}</span>],
    ['Addresses', (part) => <span className="num">{addressText(part) || 'none'}</span>],
    ['Memory required', (part) => <span className="num">{part.memory ? `${part.memory.frameBufferBytes} B` : 'none'}</span>],
    ['On the module', (part) => moduleText(part) || 'no pull-ups, no regulator'],
    ['In this plan', (part) => <Consequence plan={plan} addition={additions.get(part.id)} />],
    ['', (part) => <AddButtons plan={plan} part={part} addition={additions.get(part.id)} count={count} />],
  ];
  return (
    <div className={styles.variants}>
      <table aria-label={`Versions of ${firstOrThrow(parts).title}`}>
        <thead>
          <tr>
            <th />
            {parts.map((part) => (
              <th key={part.id} scope="col">
                {part.title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, cell]) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              {parts.map((part) => (
                <td key={part.id}>{cell(part)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

export interface FoundProps {
  readonly plan: Plan;
  /** A part and its other forms. */
  readonly parts: readonly PartSheet[];
  readonly addition: CompleteAddition | undefined;
  /** How many to add at once; one by default. */
  readonly count?: number;
  /** Terminals that are marked on its likeness: those whose labels were read. */
  readonly lit?: readonly string[];
  /** Why it is shown, where that is not plain. */
  readonly evidence?: ReactNode;
}

/** A part that could be added, with its other forms behind a button. */
export const Found = memo(function Found({ plan, parts, addition, evidence, lit, count = 1 }: FoundProps) {
  const [open, setOpen] = useState(false);
  const part = firstOrThrow(parts);
  const onModule = moduleText(part);
  return (
    <li className={styles.foundItem}>
      <div className={styles.found}>
        <div className={styles.foundFace} aria-hidden={lit === undefined}>
          <FacePicture face={partFace(part)} labels={false} maxScale={3} {...(lit ? { lit } : {})} />
        </div>
        <div className={styles.foundWords}>
          <strong>{part.title}</strong>
          <span className="quiet">{part.summary}</span>
          <span className={styles.labels}>{part.terminals.list.map((t) => t.label).join(' ')}</span>
          <span className={styles.facts}>
            <span>{BUS_TEXT[part.bus.kind]}</span>
            {addressText(part) && <span className="num">{addressText(part)}</span>}
            <span className="num">{supplyText(part)}</span>
            {onModule && <span className="quiet">on the module: {onModule}</span>}
          </span>
          {evidence}
          <span className={styles.consequence}>
            <Consequence plan={plan} addition={addition} />
          </span>
          {parts.length > 1 && (
            <UnstyledButton className={styles.more} aria-expanded={open} onClick={() => setOpen(!open)}>
              {open ? 'Close comparison' : `Compare ${parts.length} versions`}
            </UnstyledButton>
          )}
        </div>
        {!open && <AddButtons plan={plan} part={part} addition={addition} count={count} />}
      </div>
      {open && <Variants plan={plan} parts={parts} count={count} />}
    </li>
  );
});
