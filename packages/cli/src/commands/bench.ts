import { diagnose, faultBook, faultKey, possibleFaults } from '@roof-chart/core/bench/diagnose';
import { faultText } from '@roof-chart/core/text/faultText';
import { questionsFor } from '@roof-chart/core/bench/questions';
import { compareScan, type Compared, likeliestBus, scannedBuses } from '@roof-chart/core/bench/reconcile';
import { readScan } from '@roof-chart/core/bench/scan';
import { interview, type Later, ProbeSession } from '@roof-chart/core/bench/session';
import { SimulatedBench, simulatedPort } from '@roof-chart/core/bench/simulatedBench';
import { placementText } from '@roof-chart/core/text/names';
import type { Plan } from '@roof-chart/core/plan/plan';
import { counted, formatAddress } from '@roof-chart/core/quantity/format';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { PLAN, type CommandContext, type RegisterCommand } from '../command';
import { EXIT, type ExitCode, InputFault } from '../io';

interface ScanOptions {
  readonly bus?: string;
  readonly json: boolean;
}

function lineText(plan: Plan, sheets: Sheets, line: Compared): string {
  const who =
    line.is === 'extra'
      ? line.parts.slice(0, 6).join(', ') || 'no part in the library'
      : line.who.map((one) => placementText(plan, one.placement)).join(', ');
  const remedies =
    line.is === 'extra'
      ? line.remedies.map((r) =>
          r.part === undefined
            ? `    fix: set ${placementText(plan, r.placement)} to ${formatAddress(r.address)}`
            : `    fix: ${placementText(plan, r.placement)} is ${sheets.parts.get(r.part)?.sheet.title ?? r.part}: switch to it`,
        )
      : [];
  return [`${formatAddress(line.address)}  ${line.is.padEnd(10)}  ${who}`, ...remedies].join('\n');
}

/** `scan`: compares a scan result with the plan. Exit code 0 without a difference, 1 with one. */
function scan({ io, open }: CommandContext, file: string, result: string, { bus: wanted, json }: ScanOptions): ExitCode {
  const { plan, sheets } = open(file);
  const read = readScan(io.read(result));
  if (!read.ok) throw new InputFault(`${result}: ${read.fault}`);
  const buses = scannedBuses(plan, sheets);
  const controller = wanted ?? likeliestBus(plan, sheets, read.scan);
  const bus = buses.find((one) => one.controller === controller);
  if (!bus)
    throw new InputFault(
      `${wanted ?? file}: expected one of the I2C buses ${buses.map((b) => b.controller).join(', ') || '(this plan has none)'}`,
    );
  const lines = compareScan(plan, sheets, bus, read.scan);
  if (json) io.out(JSON.stringify({ bus: bus.controller, scan: read.scan, lines }, null, 2));
  else io.out([`${bus.controller}:`, ...lines.map((line) => lineText(plan, sheets, line))].join('\n'));
  return lines.every((line) => line.is === 'as-planned' || line.is === 'behind') ? EXIT.clean : EXIT.clashes;
}

interface BenchOptions {
  readonly fault: readonly string[];
  readonly list: boolean;
  readonly check: boolean;
  readonly seed: string;
}

const later: Later = (milliseconds, act) => {
  const timer = setTimeout(act, milliseconds);
  return () => clearTimeout(timer);
};

/** `bench`: simulates the bench of a plan with the line protocol on standard input and output; with `check`, runs the bench test on it. */
async function bench({ io, open }: CommandContext, file: string, { fault: keys, list, check, seed }: BenchOptions): Promise<ExitCode> {
  const { plan, sheets } = open(file);
  const all = possibleFaults(plan, sheets);
  if (list) {
    io.out(all.map((one) => `${faultKey(one)}: ${faultText(plan, sheets, one)}`).join('\n'));
    return EXIT.clean;
  }
  const faults = keys.map((key) => {
    const found = all.find((one) => faultKey(one) === key);
    if (!found) throw new InputFault(`${key}: unknown fault; --list shows the faults of this plan`);
    return found;
  });
  const number = Number(seed);
  if (!Number.isInteger(number)) throw new InputFault(`seed ${seed}: expected a whole number`);
  const simulated = new SimulatedBench(plan, sheets, { faults, seed: number });
  if (!check) {
    for await (const line of io.lines()) {
      const said = simulated.answer(line);
      if (said === 'gone') break;
      for (const one of said) io.out(one);
    }
    return EXIT.clean;
  }
  const questions = questionsFor(plan, sheets);
  const { answers } = await interview(
    new ProbeSession(simulatedPort(simulated, later), later),
    questions,
    undefined,
    // The simulated user sees what the simulated bench shows.
    (question) => simulated.look(question),
  );
  const { different, faults: named } = diagnose(faultBook(plan, sheets, questions), answers);
  io.out(
    [
      `${counted(answers.length, 'answer')}, ${different.length} different from the plan`,
      ...named.map((one) => faultText(plan, sheets, one)),
    ].join('\n'),
  );
  return different.length === 0 ? EXIT.clean : EXIT.clashes;
}

export const registerScan: RegisterCommand = (program, context) => {
  program
    .command('scan')
    .description('Compares an I2C scan result with the plan: grids, lines with 0x.., lists.')
    .argument('<file>', PLAN)
    .argument('<result>', 'text of the scan result, or - for standard input')
    .option('--bus <controller>', 'the bus that was scanned (default: the best match)')
    .option('--json', 'as JSON', false)
    .action((file: string, result: string, options: ScanOptions) => context.done(scan(context, file, result, options)));
};

export const registerBench: RegisterCommand = (program, context) => {
  program
    .command('bench')
    .description('Simulates the bench of a plan: speaks the probe’s line protocol on standard input and output.')
    .argument('<file>', PLAN)
    .option('--fault <key>', 'fault to simulate; may be repeated', (key: string, all: string[]) => [...all, key], [] as string[])
    .option('--seed <n>', 'seed for component values within their tolerances', '1')
    .option('--list', 'list the faults that can be simulated', false)
    .option('--check', 'run the bench test and report the result', false)
    .action(async (file: string, options: BenchOptions) => context.done(await bench(context, file, options)));
};
