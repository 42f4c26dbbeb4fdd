import type { Bill, Jumper } from '@roof-chart/core/outputs/bill';
import { TRANSISTOR_WORDS } from '@roof-chart/core/checks/fixes/transistors';
import { formatSi } from '@roof-chart/core/quantity/format';
import { resistorText } from '@roof-chart/core/text/resistorText';
import styles from './Build.module.css';

/** @example jumperText('red', 'male') // 'jumper wire, red, male end at the board' */
const jumperText = (colour: string, boardEnd: Jumper['boardEnd']): string =>
  `jumper wire, ${colour}${boardEnd ? `, ${boardEnd} end at the board` : ''}`;

/** What has to lie on the table before the build begins. */
export function BillTable({ bill }: { readonly bill: Bill }) {
  const rows = [
    ...bill.parts.filter((part) => !part.helper).map(({ title, count }) => [count, title] as const),
    ...bill.parts.filter((part) => part.helper).map(({ title, count }) => [count, title] as const),
    ...bill.resistors.map(({ ohms, count, names }) => [count, `resistor ${resistorText(ohms)}`, names] as const),
    ...bill.trimmers.map(({ ohms, count, names }) => [count, `trimmer ${formatSi(ohms, 'Ω')}`, names] as const),
    ...bill.capacitors.map(({ farads, count, names }) => [count, `capacitor ${formatSi(farads, 'F')}`, names] as const),
    ...bill.transistors.map(({ kind, count, names }) => [count, TRANSISTOR_WORDS[kind], names] as const),
    ...bill.diodes.map(({ count, names }) => [count, 'diode 1N4148, or 1N4007 for larger coils', names] as const),
    ...bill.crystals.map(({ hertz, count, names }) => [count, `crystal ${formatSi(hertz, 'Hz')}`, names] as const),
    ...bill.jumpers.map(({ colour, count, boardEnd }) => [count, jumperText(colour, boardEnd)] as const),
    ...bill.connectors.map(({ title, count }) => [count, title] as const),
  ];
  return (
    <table className={styles.bill}>
      <caption>Bill of materials</caption>
      <tfoot>
        <tr>
          <td colSpan={2} className="quiet">
            Other ends of jumper wires: male in a breadboard, female on the pins of a module.
          </td>
        </tr>
      </tfoot>
      <tbody>
        {rows.map(([count, words, names = []]) => (
          <tr key={words}>
            <td className="num">{count}</td>
            <td>
              {words}
              {names.length > 0 && <span className={styles.names}> {names.join(', ')}</span>}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
