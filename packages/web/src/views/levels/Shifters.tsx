import { useMemo } from 'react';
import { placementText, terminalText } from '@roof-chart/core/text/names';
import { type Plan, terminalKey, type WireEnd } from '@roof-chart/core/plan/plan';
import { partSheet } from '@roof-chart/core/sheets/sheetIndex';
import { wireEndText } from '@roof-chart/core/text/wireEndText';
import { useWorkbench } from '../../state/workbench';
import styles from './Levels.module.css';

/** The level shifters of the plan, channel by channel: what goes through, and what is free. */
export function Shifters({ plan }: { readonly plan: Plan }) {
  const { sheets } = useWorkbench();
  const modules = useMemo(
    () =>
      plan.placements.flatMap((placement) => {
        const part = partSheet(sheets, placement.sheet)?.sheet;
        return part?.passage ? [{ placement, part, passage: part.passage }] : [];
      }),
    [plan, sheets],
  );
  if (modules.length === 0) return null;
  const wiredTo = (placement: string, terminal: string) =>
    Object.entries(plan.wires).flatMap(([key, { end }]) =>
      end.to === 'terminal' && end.placement === placement && end.terminal === terminal ? [key] : [],
    );
  const said = (placement: string, terminal: string): string => {
    const own: WireEnd | undefined = plan.wires[terminalKey(placement, terminal)]?.end;
    const words = [
      ...(own ? [wireEndText(plan, sheets, own)] : []),
      ...wiredTo(placement, terminal).map((key) => terminalText(plan, sheets, key)),
    ];
    return words.join(', ');
  };
  return (
    <section aria-label="Level shifters" className={styles.shifters}>
      <h3>Level shifters</h3>
      {modules.map(({ placement, part, passage }) => {
        const label = (id: string) => part.terminals.list.find((t) => t.id === id)?.label ?? id;
        const used = passage.channels.filter(({ low, high }) => said(placement.id, low) || said(placement.id, high)).length;
        return (
          <table key={placement.id} className={styles.channels}>
            <caption>
              {placementText(plan, placement.id)}{' '}
              <span className="quiet">
                {part.title}; {used} of {passage.channels.length} channels used
              </span>
            </caption>
            <thead>
              <tr>
                <th scope="col">Channel</th>
                <th scope="col">{passage.drives === undefined ? 'Low side' : passage.drives === 'up' ? 'Input' : 'Output'}</th>
                <th scope="col">{passage.drives === undefined ? 'High side' : passage.drives === 'up' ? 'Output' : 'Input'}</th>
              </tr>
            </thead>
            <tbody>
              {passage.channels.map(({ low, high }, at) => {
                const [a, b] = [said(placement.id, low), said(placement.id, high)];
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
      })}
    </section>
  );
}
