import { rowId, type SpiReport } from '@roof-chart/core/electrics/reports/spiReport';
import type { Plan } from '@roof-chart/core/plan/plan';
import { clockText, rateText, selectText, spiRowText } from '@roof-chart/core/text/lineText';
import { nameOf } from '@roof-chart/core/text/memberName';
import { percent } from '@roof-chart/core/text/views/busText';
import { useWorkbench } from '../../state/workbench';
import styles from './Buses.module.css';
import { RateField } from './RateField';

/** How much of the bus each part takes, and how often it could be accessed. */
export function SpiLoad({ plan, sheet }: { readonly plan: Plan; readonly sheet: SpiReport }) {
  const { sheets } = useWorkbench();
  return (
    <section className={styles.section}>
      <h2>
        Bus load <span className={styles.aside}>{percent(sheet.share)}</span>
      </h2>
      <div className={styles.tableScroll}>
        <table className={styles.table}>
          <thead>
            <tr>
              <th scope="col">Part</th>
              <th scope="col">Chip select</th>
              <th scope="col">Write clock</th>
              <th scope="col">Read clock</th>
              <th scope="col">Accesses per second</th>
              <th scope="col">Utilisation</th>
              <th scope="col">Maximum rate</th>
              {sheet.softwareHz !== undefined && <th scope="col">Software SPI</th>}
            </tr>
          </thead>
          <tbody>
            {sheet.rows.map((row) => (
              <tr key={rowId(row)}>
                <th scope="row">{row.further ? spiRowText(plan, row) : row.chain.map((id) => nameOf(plan, id)).join(', ')}</th>
                <td>{selectText(plan, sheets, row)}</td>
                <td>{clockText(row.write)}</td>
                <td>{clockText(row.read)}</td>
                <td>{row.perSecond === undefined ? '' : <RateField plan={plan} placement={row.head} usual={row.perSecond} />}</td>
                <td className="num">{row.time ? percent(row.time.share) : ''}</td>
                <td>{rateText(row.time?.mostPerSecond, row.what)}</td>
                {sheet.softwareHz !== undefined && <td>{rateText(row.bySoftware?.mostPerSecond, row.what)}</td>}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
