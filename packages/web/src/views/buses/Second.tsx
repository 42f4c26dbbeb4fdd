import type { Plan } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import type { I2cReport } from '@roof-chart/core/review/i2cReport';
import { SavePicture } from '../../ui/SavePicture';
import type { Scale } from '../../ui/chart/placing';
import { scaleSvg } from '../../ui/chart/scaleSvg';
import { stackRows } from '../../ui/chart/stackRows';
import styles from './Buses.module.css';
import { percent, timeText } from '@roof-chart/core/text/views/busText';
import { nameOf } from '@roof-chart/core/text/memberName';
import { RateField } from './RateField';

/** 100 % bus load, in quarters. */
const SECOND: Scale = { min: 0, max: 1, log: false, ticks: [0, 0.25, 0.5, 0.75, 1].map((at) => ({ at, label: percent(at) })) };

/** The shares of a bus as a scale, to save as a picture. */
const loadSvg = (plan: Plan, { time }: I2cReport): string =>
  scaleSvg({
    label: `Bus load: ${percent(time.share)}`,
    scale: SECOND,
    rows: stackRows(
      time.users.map((user) => ({ id: user.id, head: nameOf(plan, user.id), value: percent(user.share), amount: user.share })),
      1,
    ),
    windows: [],
  });

/** The load of a bus by part. */
function Members({ plan, sheet: { time, limits, segments } }: { readonly plan: Plan; readonly sheet: I2cReport }) {
  return (
    <table className={styles.table}>
      <thead>
        <tr>
          <th scope="col">Part</th>
          <th scope="col">Accesses per second</th>
          <th scope="col">Time per access</th>
          <th scope="col">Utilisation</th>
          <th scope="col">Maximum rate alone</th>
          <th scope="col">Maximum clock</th>
        </tr>
      </thead>
      <tbody>
        {segments
          .flatMap((one) => one.segment.members)
          .map((member) => {
            const user = time.users.find((u) => u.id === member.id);
            const limit = limits.find((l) => l.id === member.id);
            return (
              <tr key={member.id}>
                <th scope="row">{member.name}</th>
                <td>{user && <RateField plan={plan} placement={member.id} usual={user.perSecond} />}</td>
                <td className="num">{user ? formatSi(user.seconds, 's') : 'unknown'}</td>
                <td className="num">{user ? percent(user.share) : ''}</td>
                <td className="num">
                  {user && Number.isFinite(user.alonePerSecond) ? `${Math.floor(user.alonePerSecond)} per second` : ''}
                </td>
                <td className="num">{limit ? formatSi(limit.hz, 'Hz') : ''}</td>
              </tr>
            );
          })}
      </tbody>
    </table>
  );
}

/** How a second of a bus is taken up, by whom, and who sets its clock. */
export function Second({ plan, sheet }: { readonly plan: Plan; readonly sheet: I2cReport }) {
  const { time } = sheet;
  return (
    <section className={styles.section}>
      <h2>
        Bus load <span className={styles.aside}>{percent(time.share)}</span>{' '}
        <SavePicture label="Bus load" svg={() => loadSvg(plan, sheet)} />
      </h2>
      <div className={styles.second} aria-hidden>
        {time.users.map((user, at) => (
          <span
            key={user.id}
            className={at % 2 === 0 ? styles.shareA : styles.shareB}
            style={{ width: `${100 * Math.min(1, user.share)}%` }}
          >
            {user.share > 0.08 ? `${nameOf(plan, user.id)} ${percent(user.share)}` : ''}
          </span>
        ))}
        <span className={styles.free}>{time.share < 0.85 ? `${percent(1 - time.share)} free` : ''}</span>
      </div>
      <p className={time.share > 1 ? styles.bad : styles.fact}>{timeText(plan, sheet)}</p>
      <Members plan={plan} sheet={sheet} />
    </section>
  );
}
