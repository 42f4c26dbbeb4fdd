import { Button, NativeSelect, Progress } from '@mantine/core';
import { useMemo, useRef, useState } from 'react';
import { type BenchFault } from '@roof-chart/core/bench/circuit';
import { type Diagnosis, faultKey, faultPart, possibleFaults } from '@roof-chart/core/bench/diagnose';
import { faultWords } from '@roof-chart/core/bench/faultWords';
import { firstLights } from '@roof-chart/core/bench/firstLight';
import { probeAvr } from '@roof-chart/core/bench/probe/avr';
import { probeMicroPython } from '@roof-chart/core/bench/probe/microPython';
import { drivenParts } from '@roof-chart/core/bench/driven';
import { type Question, questionsFor } from '@roof-chart/core/bench/questions';
import { compareScan, scannedBuses } from '@roof-chart/core/bench/reconcile';
import { type BenchPort, interview, ProbeSession, SESSION_WORDS, type SessionFault } from '@roof-chart/core/bench/session';
import { SimulatedBench, simulatedPort } from '@roof-chart/core/bench/simulatedBench';
import { sureEdits } from '@roof-chart/core/bench/verified';
import { sayPlacement } from '@roof-chart/core/checks/say';
import type { Plan } from '@roof-chart/core/plan/plan';
import { counted } from '@roof-chart/core/quantity/format';
import { boardSheet } from '@roof-chart/core/sheets/sheetIndex';
import { announce } from '../../app/announcer';
import { downloadText } from '../../app/download';
import { useWorkbench } from '../../app/workbench';
import { Stopped } from '../../review/reviewFeed';
import styles from './BringUp.module.css';
import { DiagnosisReport } from './DiagnosisReport';
import { ComparedTable } from './ScanCheck';
import { canSerial, openSerial } from './serialPort';

const later = (milliseconds: number, act: () => void) => {
  const timer = setTimeout(act, milliseconds);
  return () => clearTimeout(timer);
};

interface Outcome {
  readonly plan: Plan;
  readonly questions: readonly Question[];
  readonly answers: readonly string[];
  readonly fault: SessionFault | undefined;
  readonly diagnosis: Diagnosis & { readonly sure: readonly string[] };
}

/** Addresses that answered on the bus at these pins, where it was asked. */
function foundAt(outcome: Outcome, sda: string | undefined, scl: string | undefined): readonly number[] | undefined {
  const at = outcome.questions.findIndex((q) => q.ask === 'scan' && q.sda === sda && q.scl === scl);
  const answer = outcome.answers[at];
  if (answer === undefined || /low$/.test(answer)) return undefined;
  return answer === 'none' ? [] : answer.split(' ').map((hex) => parseInt(hex, 16));
}

/** The check of a real or a simulated bench, pin by pin. */
export function LiveBench({ plan }: { readonly plan: Plan }) {
  const { sheets, feed, edit } = useWorkbench();
  const faults = useMemo(() => possibleFaults(plan, sheets), [plan, sheets]);
  const [chosen, setChosen] = useState('');
  const [running, setRunning] = useState<{ readonly done: number; readonly all: number } | null>(null);
  const [outcome, setOutcome] = useState<Outcome | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const stop = useRef(false);
  const lights = useMemo(() => drivenParts(plan, sheets), [plan, sheets]);
  const [lit, setLit] = useState('');
  const board = boardSheet(sheets, plan.board)!;
  const avr = useMemo(() => probeAvr(board), [board]);

  const run = async (open: () => Promise<BenchPort | undefined>) => {
    setProblem(null);
    stop.current = false;
    let port: BenchPort | undefined;
    try {
      port = await open();
      if (!port) return;
      const questions = questionsFor(plan, sheets);
      setRunning({ done: 0, all: questions.length });
      const { answers, fault } = await interview(new ProbeSession(port, later), questions, (done) => {
        setRunning({ done, all: questions.length });
        return !stop.current;
      });
      const diagnosis = await feed.search<Outcome['diagnosis']>((reviewer) => reviewer.diagnose(plan, questions, answers));
      setOutcome({ plan, questions, answers, fault, diagnosis });
      announce(
        diagnosis.different.length === 0 ? 'The bench answers as planned' : `${diagnosis.different.length} answers differ from the plan`,
      );
    } catch (error) {
      if (!(error instanceof Stopped)) setProblem((error as Error).message);
    } finally {
      await port?.close();
      setRunning(null);
    }
  };
  const simulated = () => {
    const fault = faults.find((one) => faultKey(one) === chosen);
    const bench = new SimulatedBench(plan, sheets, { faults: fault ? [fault] : [], seed: 1 + Math.floor(Math.random() * 1e6) });
    return Promise.resolve(simulatedPort(bench, later));
  };
  const light = async () => {
    const one = lights.find(({ placement }) => placement === lit) ?? lights[0];
    setProblem(null);
    let port: BenchPort | undefined;
    try {
      port = await openSerial();
      if (!port || !one) return;
      const reply = await new ProbeSession(port, later).request(one.words);
      if (!reply.ok) setProblem(SESSION_WORDS[reply.fault]);
      else announce('Lit, and let go again');
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      await port?.close();
    }
  };
  const causesOf = (fault: BenchFault) => {
    const part = faultPart(plan, sheets, fault);
    return part === undefined ? undefined : firstLights(plan, sheets).find((one) => one.placement === part);
  };
  const current = outcome?.plan.wires === plan.wires ? outcome : null;
  const sure = current ? sureEdits(plan, current.diagnosis.sure) : [];
  return (
    <div className={styles.live}>
      <p className="quiet">
        A small probe program on the board says what is at its pins; here that is held against the plan, wire by wire. Nothing is driven at
        which something moves or heats.
      </p>
      <div className={styles.row}>
        <Button
          size="compact-md"
          disabled={running !== null || !canSerial()}
          title={canSerial() ? undefined : 'This browser cannot talk to serial ports'}
          onClick={() => void run(openSerial)}
        >
          Check the real bench
        </Button>
        <Button size="compact-md" variant="default" onClick={() => downloadText('probe.py', probeMicroPython(board), 'text/x-python')}>
          Probe for MicroPython
        </Button>
        {avr !== undefined && (
          <Button size="compact-md" variant="default" onClick={() => downloadText('probe.cpp', avr, 'text/x-c++')}>
            Probe in C++
          </Button>
        )}
      </div>
      <div className={styles.row}>
        <NativeSelect
          size="xs"
          className={styles.fault!}
          label="Or try it on a simulated bench"
          value={chosen}
          data={[
            { value: '', label: 'wired as planned' },
            ...faults.map((fault) => ({ value: faultKey(fault), label: faultWords(plan, sheets, fault) })),
          ]}
          onChange={(event) => setChosen(event.currentTarget.value)}
        />
        <Button size="compact-md" variant="default" disabled={running !== null} onClick={() => void run(simulated)}>
          Check the simulated bench
        </Button>
      </div>
      {lights.length > 0 && (
        <div className={styles.row}>
          <NativeSelect
            size="xs"
            className={styles.fault!}
            label="Light one by the probe, and look whether it is the right one"
            value={lit}
            data={lights.map(({ placement, pins }) => ({
              value: placement,
              label: `${sayPlacement(plan, placement)}: ${pins.map((one) => one.label).join(', ')}`,
            }))}
            onChange={(event) => setLit(event.currentTarget.value)}
          />
          <Button size="compact-md" variant="default" disabled={running !== null || !canSerial()} onClick={() => void light()}>
            Light it
          </Button>
        </div>
      )}
      {running && (
        <div className={styles.row} role="status">
          <Progress
            className={styles.share!}
            value={(100 * running.done) / Math.max(1, running.all)}
            size="sm"
            aria-label="Asked so far"
            transitionDuration={0}
          />
          <span className="num">
            {running.done} of {running.all} questions
          </span>
          <Button size="compact-sm" variant="default" onClick={() => (stop.current = true)}>
            Stop
          </Button>
        </div>
      )}
      {problem && (
        <p className={styles.bad} role="alert">
          {problem}
        </p>
      )}
      {current && (
        <>
          {current.fault && (
            <p className={styles.bad} role="alert">
              {SESSION_WORDS[current.fault]}
            </p>
          )}
          <DiagnosisReport plan={plan} diagnosis={current.diagnosis} asked={current.answers.length} causesOf={causesOf} />
          {sure.length > 0 && (
            <Button size="compact-sm" variant="default" onClick={() => edit(sure, `${counted(sure.length, 'wire')} felt in place`)}>
              Keep {counted(sure.length, 'wire')} as felt in place
            </Button>
          )}
          {scannedBuses(plan, sheets).map((bus) => {
            const addresses = foundAt(current, bus.pins['sda'], bus.pins['scl']);
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
      )}
    </div>
  );
}
