import { type CalcResult, type Calculation, outputText, outputWords } from '@roof-chart/core/electrics/calculations/calculation';
import type { Plan } from '@roof-chart/core/plan/plan';
import styles from './Resistors.module.css';
import { SpanPicture } from './SpanPicture';
import type { Answer } from './useCalculation';
import { UseAtTerminal, UseLadder } from './UseResult';

function Outputs({ calculation, result }: { readonly calculation: Calculation; readonly result: CalcResult }) {
  return (
    <>
      <table className={styles.outputs}>
        <tbody>
          {calculation.outputs.map((output) => {
            const value = result.outputs[output.name] ?? null;
            return (
              <tr key={output.name}>
                <td className="num">{outputText(value, output.unit)}</td>
                <th scope="row">{outputWords(output, value)}</th>
              </tr>
            );
          })}
        </tbody>
      </table>
      <ul className={styles.working}>
        {result.working.map((step) => (
          <li key={step.formula}>
            {step.formula}: {step.values} <em>({step.source})</em>
          </li>
        ))}
      </ul>
    </>
  );
}

interface CalcOutputsProps {
  readonly plan: Plan;
  readonly calculation: Calculation;
  readonly answer: Answer | null;
}

/** What a calculation gives with its working, or why it gives nothing; what fits goes into the plan by a click. */
export function CalcOutputs({ plan, calculation, answer }: CalcOutputsProps) {
  const { id } = calculation;
  return (
    <div className={styles.result} aria-live="polite">
      {!answer && <p className="quiet">The result follows what you enter.</p>}
      {answer && 'problem' in answer && (
        <p className={styles.problem} role="alert">
          {answer.problem}
        </p>
      )}
      {answer && 'result' in answer && (
        <>
          <Outputs calculation={calculation} result={answer.result} />
          {answer.result.spans && <SpanPicture spans={answer.result.spans} label={calculation.words} />}
          {id === 'ladder' ? (
            <UseLadder plan={plan} result={answer.result} />
          ) : (
            <UseAtTerminal key={id} plan={plan} id={id} result={answer.result} />
          )}
        </>
      )}
    </div>
  );
}
