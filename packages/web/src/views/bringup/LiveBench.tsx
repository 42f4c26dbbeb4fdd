import clsx from 'clsx';
import { Button, NativeSelect, Progress } from '@mantine/core';
import { useMemo, useState } from 'react';
import { type BenchFault } from '@roof-chart/core/bench/circuit';
import { faultKey, faultPart, possibleFaults } from '@roof-chart/core/bench/diagnose';
import { faultText } from '@roof-chart/core/text/faultText';
import { firstLights, lightStep } from '@roof-chart/core/bench/firstLight';
import { probeAvr, probeMicroPython } from '@roof-chart/core/bench/probe/programs';
import { isForProbe } from '@roof-chart/core/bench/questions';
import { compareScan, scannedBuses } from '@roof-chart/core/bench/reconcile';
import { SESSION_WORDS } from '@roof-chart/core/bench/session';
import { SimulatedBench, simulatedPort } from '@roof-chart/core/bench/simulatedBench';
import { sureEdits } from '@roof-chart/core/bench/verified';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import { counted } from '@roof-chart/core/quantity/format';
import { boardSheetOrThrow } from '@roof-chart/core/sheets/sheetIndex';
import { downloadText } from '../../ui/download';
import { useWorkbench } from '../../state/workbench';
import styles from './BringUp.module.css';
import { DiagnosisReport } from './DiagnosisReport';
import { ComparedTable } from './ScanCheck';
import { canSerial, openSerial } from './serialPort';
import { Trials } from './Trials';
import { later, type Outcome, useBench } from './useBench';

/** Addresses found on the bus at these pins, if scanned. */
function foundAt({ questions, answers }: Outcome, sda: string | undefined, scl: string | undefined): readonly number[] | undefined {
  const at = questions.findIndex((q) => q.ask === 'scan' && q.sda === sda && q.scl === scl);
  const answer = answers[at];
  if (answer === undefined || /low$/.test(answer)) return undefined;
  return answer === 'none' ? [] : answer.split(' ').map((hex) => parseInt(hex, 16));
}

/** Parts that passed all their tests and are not yet marked as working. */
function lightEdits(plan: Plan, { questions, answers, found }: Outcome): readonly Edit[] {
  const worked = new Map<string, boolean>();
  for (const [at, question] of questions.entries())
    if ('placement' in question)
      worked.set(question.placement, worked.get(question.placement) !== false && answers[at] === found.planned[at]);
  return [...worked].flatMap(([placement, isSeen]): Edit[] =>
    isSeen && plan.steps[lightStep(placement)] === undefined ? [{ kind: 'step', step: lightStep(placement), done: 'seen' }] : [],
  );
}

/** What a check of the bench came to, and what is still to be tried. */
function BenchOutcome({
  plan,
  outcome,
  bench,
}: {
  readonly plan: Plan;
  readonly outcome: Outcome;
  readonly bench: ReturnType<typeof useBench>;
}) {
  const { sheets, edit } = useWorkbench();
  const board = boardSheetOrThrow(sheets, plan.board);
  const { found, questions, answers, fault } = outcome;
  const causesOf = (one: BenchFault) => {
    const part = faultPart(plan, sheets, one);
    return part === undefined ? undefined : firstLights(plan, sheets).find((light) => light.placement === part);
  };
  const sure = sureEdits(plan, found.sure);
  const lit = lightEdits(plan, outcome);
  const kept = [
    ...(sure.length > 0 ? [`${counted(sure.length, 'wire')} as confirmed`] : []),
    ...(lit.length > 0 ? [`${counted(lit.length, 'part')} as working`] : []),
  ].join(', ');
  return (
    <>
      {fault && (
        <p className={styles.bad} role="alert">
          {SESSION_WORDS[fault]}
        </p>
      )}
      <DiagnosisReport
        plan={plan}
        diagnosis={found}
        open={questions.filter((q, at) => !isForProbe(q) && answers[at] === undefined).length}
        causesOf={causesOf}
      />
      {kept !== '' && (
        <Button size="compact-sm" variant="default" onClick={() => edit([...sure, ...lit], `record ${kept}`)}>
          Record {kept}
        </Button>
      )}
      <Trials outcome={outcome} asking={bench.asking} isOpen={bench.isOpen} ask={bench.ask} tell={bench.tell} see={bench.see} />
      {scannedBuses(plan, sheets).map((bus) => {
        const addresses = foundAt(outcome, bus.pins['sda'], bus.pins['scl']);
        return (
          addresses && (
            <div key={bus.id}>
              <h4>{board.controllers.get(bus.controller)?.title ?? bus.controller}</h4>
              <ComparedTable plan={plan} lines={compareScan(plan, sheets, bus, { addresses, held: [] })} />
            </div>
          )
        );
      })}
    </>
  );
}

interface BenchProps {
  readonly plan: Plan;
  readonly bench: ReturnType<typeof useBench>;
}

/** The test of the board on the bench, and the program that it needs there. */
function RealBench({ plan, bench: { asking, outcome, isOpen, check, close } }: BenchProps) {
  const { sheets } = useWorkbench();
  const board = boardSheetOrThrow(sheets, plan.board);
  const avr = useMemo(() => probeAvr(board), [board]);
  const python = useMemo(() => probeMicroPython(board), [board]);
  const serial = async () => {
    const port = await openSerial();
    return port && { port };
  };
  return (
    <>
      <div className={styles.row}>
        <Button
          size="compact-md"
          disabled={asking !== null || !canSerial()}
          title={canSerial() ? undefined : 'This browser does not support serial ports'}
          onClick={() => void check(serial)}
        >
          Test the board
        </Button>
        {python !== undefined && (
          <Button size="compact-md" variant="default" onClick={() => downloadText('probe.py', python, 'text/x-python')}>
            Download probe for MicroPython
          </Button>
        )}
        {avr !== undefined && (
          <Button size="compact-md" variant="default" onClick={() => downloadText('probe.cpp', avr, 'text/x-c++')}>
            Download probe in C++
          </Button>
        )}
        {isOpen && outcome?.isSimulated !== true && asking === null && (
          <Button size="compact-md" variant="default" onClick={() => void close()}>
            Disconnect the probe
          </Button>
        )}
      </div>
      {python === undefined && avr === undefined && (
        <p className="quiet">
          No probe for {board.sheet.title}: probes are available for boards that run MicroPython and for ATmega chips. The simulated bench
          works for every board.
        </p>
      )}
    </>
  );
}

/** A bench as the plan says, with one fault or none. */
function Simulation({ plan, bench: { asking, check } }: BenchProps) {
  const { sheets } = useWorkbench();
  const faults = useMemo(() => possibleFaults(plan, sheets), [plan, sheets]);
  const [chosen, setChosen] = useState('');
  const simulated = () => {
    const fault = faults.find((one) => faultKey(one) === chosen);
    const made = new SimulatedBench(plan, sheets, { faults: fault ? [fault] : [], seed: 1 + Math.floor(Math.random() * 1e6) });
    return Promise.resolve({ port: simulatedPort(made, later), look: made.look.bind(made) });
  };
  return (
    <div className={styles.row}>
      <NativeSelect
        size="xs"
        className={clsx(styles.fault)}
        label="Simulated bench: fault to simulate"
        value={chosen}
        data={[
          { value: '', label: 'none, wired as planned' },
          ...faults.map((fault) => ({ value: faultKey(fault), label: faultText(plan, sheets, fault) })),
        ]}
        onChange={(event) => setChosen(event.currentTarget.value)}
      />
      <Button size="compact-md" variant="default" disabled={asking !== null} onClick={() => void check(simulated)}>
        Test the simulated bench
      </Button>
    </div>
  );
}

function TestProgress({ done, all, onStop }: { readonly done: number; readonly all: number; readonly onStop: () => void }) {
  return (
    <div className={styles.row} role="status">
      <Progress
        className={clsx(styles.share)}
        value={(100 * done) / Math.max(1, all)}
        size="sm"
        aria-label="Test progress"
        transitionDuration={0}
      />
      <span className="num">
        {done} of {all} questions
      </span>
      <Button size="compact-sm" variant="default" onClick={onStop}>
        Stop
      </Button>
    </div>
  );
}

/** The check of a real or a simulated bench, pin by pin and part by part. */
export function LiveBench({ plan }: { readonly plan: Plan }) {
  const bench = useBench(plan);
  const { asking, problem, outcome, stop } = bench;
  return (
    <div className={styles.live}>
      <p className="quiet">
        A small probe program on the board measures its pins and compares them with the plan, wire by wire. Outputs that move, heat or
        switch are not driven unless you allow it.
      </p>
      <RealBench plan={plan} bench={bench} />
      <Simulation plan={plan} bench={bench} />
      {asking && 'done' in asking && <TestProgress done={asking.done} all={asking.all} onStop={stop} />}
      {problem && (
        <p className={styles.bad} role="alert">
          {problem}
        </p>
      )}
      {outcome && <BenchOutcome plan={plan} outcome={outcome} bench={bench} />}
    </div>
  );
}
