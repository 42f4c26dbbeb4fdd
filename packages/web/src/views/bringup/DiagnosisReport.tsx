import type { BenchFault } from '@roof-chart/core/bench/circuit';
import { type Diagnosis, faultKey } from '@roof-chart/core/bench/diagnose';
import { answerText, faultText, questionText } from '@roof-chart/core/text/faultText';
import type { FirstLight } from '@roof-chart/core/bench/firstLight';
import type { Plan } from '@roof-chart/core/plan/plan';
import { counted } from '@roof-chart/core/quantity/format';
import { useWorkbench } from '../../state/workbench';
import styles from './BringUp.module.css';

interface DiagnosisReportProps {
  readonly plan: Plan;
  readonly diagnosis: Diagnosis;
  /** Number of unanswered questions. */
  readonly open: number;
  readonly causesOf: (fault: BenchFault) => FirstLight | undefined;
}

/** More single faults than these say nothing more. */
const NAMED = 8;

/** The single faults that explain the answers best. */
function LikelyFaults({ plan, diagnosis, causesOf }: Pick<DiagnosisReportProps, 'plan' | 'diagnosis' | 'causesOf'>) {
  const { sheets } = useWorkbench();
  const { answered, different, faults, exact } = diagnosis;
  if (faults.length === 0)
    return (
      <p className={styles.bad}>
        {different.length} of {counted(answered, 'answer')} {different.length === 1 ? 'differs' : 'differ'} from the plan; no single fault
        explains this. There may be more than one fault.
      </p>
    );
  return (
    <>
      <p className={styles.bad}>
        {exact ? 'Most likely' : 'Closest'} {faults.length > 1 ? 'causes (indistinguishable by this test):' : 'cause:'}
      </p>
      <ul className={styles.named}>
        {faults.slice(0, NAMED).map((fault) => {
          const light = causesOf(fault);
          return (
            <li key={faultKey(fault)}>
              <strong>{faultText(plan, sheets, fault)}</strong>
              {fault.kind === 'dead' && light && <span className="quiet">; also check: {light.causes[0]?.words}</span>}
            </li>
          );
        })}
        {faults.length > NAMED && <li className="quiet">and {faults.length - NAMED} more wires and positions with the same effect</li>}
      </ul>
    </>
  );
}

/** Every answer that differs from the planned one. */
function Differences({ plan, different }: { readonly plan: Plan; readonly different: Diagnosis['different'] }) {
  const { sheets } = useWorkbench();
  return (
    <table className={styles.table}>
      <thead>
        <tr>
          <th scope="col">Test</th>
          <th scope="col">Expected</th>
          <th scope="col">Measured</th>
        </tr>
      </thead>
      <tbody>
        {different.map(({ question, planned, got }) => {
          const words = questionText(plan, sheets, question);
          return (
            <tr key={words}>
              <th scope="row">{words}</th>
              <td>{answerText(question, planned)}</td>
              <td>{answerText(question, got)}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** What a check of the bench came to: what is most likely wrong, and every answer that differs. */
export function DiagnosisReport({ plan, diagnosis, open, causesOf }: DiagnosisReportProps) {
  const { answered, different } = diagnosis;
  if (answered === 0) return null;
  if (different.length === 0)
    return (
      <p className={styles.good} role="status">
        All {counted(answered, 'answer')} as planned.{' '}
        {open > 0
          ? `Inputs of parts cannot be measured: ${counted(open, 'part or line', 'parts and lines')} to test below.`
          : 'Every wire was tested.'}
      </p>
    );
  return (
    <div role="status">
      <LikelyFaults plan={plan} diagnosis={diagnosis} causesOf={causesOf} />
      <details>
        <summary>
          {counted(different.length, 'difference')} in {counted(answered, 'answer')}
        </summary>
        <Differences plan={plan} different={different} />
      </details>
    </div>
  );
}
