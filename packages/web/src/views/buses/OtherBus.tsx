import { PIN_ROLES } from '@roof-chart/core/sheets/roles';
import { boardOf } from '@roof-chart/core/plan/edit';
import type { Bus } from '@roof-chart/core/nets/buses';
import { terminalsOf } from '@roof-chart/core/nets/terminals';
import type { Plan } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import { partSheet } from '@roof-chart/core/sheets/sheetIndex';
import { endWords } from '../../app/editWords';
import { useWorkbench } from '../../app/workbench';
import styles from './Buses.module.css';

/** The members of an SPI or serial bus: their lines, selects, modes and clocks as the sheets give them. */
export function OtherBus({ plan, bus }: { readonly plan: Plan; readonly bus: Bus }) {
  const { sheets } = useWorkbench();
  const board = boardOf(plan, sheets)!;
  const controller = bus.controller === undefined ? undefined : board.controllers.get(bus.controller);
  const label = (pin: string) => board.pins.get(pin)?.label ?? pin;
  const lines = Object.entries(bus.pins)
    .map(([line, pin]) => `${label(pin)} ${line.toUpperCase()}`)
    .join(', ');
  const clock = (hz: number | undefined) => (hz === undefined ? 'not known' : formatSi(hz, 'Hz'));
  return (
    <>
      <p className={styles.facts}>
        {lines}
        {controller ? `; controller up to ${formatSi(controller.maxHz, 'Hz')}` : ''}
      </p>
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">Part</th>
            <th scope="col">Lines</th>
            <th scope="col">Select</th>
            <th scope="col">Modes</th>
            <th scope="col">Writes up to</th>
            <th scope="col">Reads up to</th>
          </tr>
        </thead>
        <tbody>
          {bus.members.map((member) => {
            const part = partSheet(sheets, member.sheet)?.sheet;
            const own = terminalsOf(plan, member, sheets);
            const select = own.find((t) => t.terminal.role === 'spi.cs');
            const used = own.filter((t) => PIN_ROLES[t.terminal.role]?.line?.kind === bus.kind && t.wire).map((t) => t.terminal.label);
            return (
              <tr key={member.id}>
                <th scope="row">{member.name}</th>
                <td>{used.join(', ')}</td>
                <td className="mono">{select?.wire ? endWords(plan, sheets, select.wire.end) : bus.kind === 'spi' ? 'none' : ''}</td>
                <td>{part?.bus.modes?.join(', ')}</td>
                <td className="num">{clock(part?.bus.maxWriteHz)}</td>
                <td className="num">{clock(part?.bus.maxReadHz ?? part?.bus.maxWriteHz)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}
