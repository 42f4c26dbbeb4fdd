import { useMemo } from 'react';
import { placementText, terminalText } from '@roof-chart/core/text/names';
import { type Plan, terminalKey, type WireEnd } from '@roof-chart/core/plan/plan';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { partSheet, type Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { wireEndText } from '@roof-chart/core/text/wireEndText';
import { useWorkbench } from '../../state/workbench';
import styles from './Levels.module.css';

type Said = (placement: string, terminal: string) => string;

/** What each end of a channel is wired to. */
function saidOf(plan: Plan, sheets: Sheets): Said {
  const wiredTo = (placement: string, terminal: string) =>
    Object.entries(plan.wires).flatMap(([key, { end }]) =>
      end.to === 'terminal' && end.placement === placement && end.terminal === terminal ? [key] : [],
    );
  return (placement, terminal) => {
    const own: WireEnd | undefined = plan.wires[terminalKey(placement, terminal)]?.end;
    const words = [
      ...(own ? [wireEndText(plan, sheets, own)] : []),
      ...wiredTo(placement, terminal).map((key) => terminalText(plan, sheets, key)),
    ];
    return words.join(', ');
  };
}

interface ModuleProps {
  readonly name: string;
  readonly placement: string;
  readonly part: PartSheet;
  readonly levelShifter: NonNullable<PartSheet['levelShifter']>;
  readonly said: Said;
}

/** One module with its channels. */
function Module({ name, placement, part, levelShifter: { channels, drives }, said }: ModuleProps) {
  const label = (id: string) => part.terminals.list.find((t) => t.id === id)?.label ?? id;
  const used = channels.filter(({ low, high }) => said(placement, low) || said(placement, high)).length;
  return (
    <table className={styles.channels}>
      <caption>
        {name}{' '}
        <span className="quiet">
          {part.title}; {used} of {channels.length} channels used
        </span>
      </caption>
      <thead>
        <tr>
          <th scope="col">Channel</th>
          <th scope="col">{drives === undefined ? 'Low side' : drives === 'up' ? 'Input' : 'Output'}</th>
          <th scope="col">{drives === undefined ? 'High side' : drives === 'up' ? 'Output' : 'Input'}</th>
        </tr>
      </thead>
      <tbody>
        {channels.map(({ low, high }, at) => {
          const [a, b] = [said(placement, low), said(placement, high)];
          return (
            <tr key={low} className={a || b ? undefined : styles.free}>
              <th scope="row" className="num">
                {at + 1}
              </th>
              <td>
                <span className="mono">{label(low)}</span> {a || 'free'}
              </td>
              <td>
                <span className="mono">{label(high)}</span> {b || 'free'}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** The level shifters of the plan, channel by channel: what goes through, and what is free. */
export function Shifters({ plan }: { readonly plan: Plan }) {
  const { sheets } = useWorkbench();
  const modules = useMemo(
    () =>
      plan.placements.flatMap(({ id, sheet }) => {
        const part = partSheet(sheets, sheet)?.sheet;
        return part?.levelShifter ? [{ placement: id, part, levelShifter: part.levelShifter }] : [];
      }),
    [plan, sheets],
  );
  if (modules.length === 0) return null;
  const said = saidOf(plan, sheets);
  return (
    <section aria-label="Level shifters" className={styles.shifters}>
      <h3>Level shifters</h3>
      {modules.map((module) => (
        <Module key={module.placement} name={placementText(plan, module.placement)} said={said} {...module} />
      ))}
    </section>
  );
}
