import { type OtherLines } from '@roof-chart/core/electrics/reports/otherLines';
import { findBuses } from '@roof-chart/core/nets/buses';
import { boardOrThrow } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import { wireEndText } from '@roof-chart/core/text/wireEndText';
import { useWorkbench } from '../../state/workbench';
import styles from './Buses.module.css';
import { BusPlaceMenu } from './BusPlaceMenu';
import { LINE_TEXT, noteText } from '@roof-chart/core/text/lineText';

/** Serial ports, 1-Wire, proprietary protocols, encoders and key matrices: their pins with notes. */
export function OtherLinesView({ plan, all }: { readonly plan: Plan; readonly all: readonly OtherLines[] }) {
  const { sheets } = useWorkbench();
  const board = boardOrThrow(plan, sheets);
  // A line may go on to another part: a chained module, an expander.
  const label = ({ pin, key }: OtherLines['lines'][number]) => {
    const end = plan.wires[key]?.end;
    if (pin !== undefined) return board.pins.get(pin)?.label ?? pin;
    return end ? wireEndText(plan, sheets, end) : 'open';
  };
  const serial = findBuses(plan, sheets).filter((bus) => bus.kind === 'uart');
  const busesOf = (members: OtherLines['members']) =>
    serial.filter((bus) => bus.members.some((m) => members.some(({ id }) => id === m.id))).slice(0, 1);
  return (
    <>
      <p className={styles.facts}>Lines that are neither I2C nor SPI.</p>
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">Part</th>
            <th scope="col">Kind</th>
            <th scope="col">Lines</th>
            <th scope="col">Notes</th>
          </tr>
        </thead>
        <tbody>
          {all.map(({ kind, members, lines, maxHz, notes }) => (
            <tr key={`${kind} ${members.map((m) => m.id).join(' ')}`} className={styles.tall}>
              <th scope="row">{members.map((m) => m.name).join(', ')}</th>
              <td>
                {LINE_TEXT[kind]}
                {maxHz === undefined ? '' : `, up to ${formatSi(maxHz, 'Hz')}`}
              </td>
              <td>
                <ul className={styles.pins}>
                  {lines.map((line) => (
                    <li key={line.key}>
                      {line.label} → <span className="mono">{label(line)}</span>
                    </li>
                  ))}
                </ul>
              </td>
              <td className={styles.notes}>
                {kind === 'uart' && busesOf(members).map((bus) => <BusPlaceMenu key={bus.id} plan={plan} bus={bus} />)}
                {notes.map((note) => (
                  <p key={JSON.stringify(note)}>{noteText(plan, note)}</p>
                ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
