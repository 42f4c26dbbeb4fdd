import { planChanges } from '@roof-chart/core/text/planChanges';
import { counted } from '@roof-chart/core/quantity/format';
import { costText } from '@roof-chart/core/text/costText';
import { ontoBoard } from '@roof-chart/core/assign/ontoBoard';
import { describeFinding } from '@roof-chart/core/text/describe';
import { listText, terminalText } from '@roof-chart/core/text/names';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { AdditionVerdict } from '@roof-chart/core/review/addition';
import { type CompleteAddition, completeAddition, completeVerdict } from '@roof-chart/core/review/additionNeeds';
import { type BoardFit, boardFit, compareFits } from '@roof-chart/core/review/boardFit';
import { needsText } from '@roof-chart/core/text/needsText';
import { notedSheets } from '@roof-chart/core/sheets/notedSheets';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { PLAN, type CommandContext, type RegisterCommand } from '../command';
import { EXIT, type ExitCode, InputFault, type Io } from '../io';
import type { OpenPlan } from '../planFile';
import { deliver } from '../deliver';

interface FitsOptions {
  readonly parts: boolean;
  readonly json: boolean;
  readonly switch?: string;
  readonly out?: string;
}

/** Time limit per board; the best solution found is then marked as not proved. */
const NODES = 20_000;

const VERDICT_WORDS: { readonly [V in AdditionVerdict]: string } = {
  fits: 'fits',
  with: 'with',
  moves: 'moves',
  risk: 'warning',
  no: 'no',
};
const VERDICTS: { readonly [V in BoardFit['verdict']]: string } = { fits: 'fits', clashes: 'errors', open: 'no', unknown: 'unknown' };

function boardLine(fit: BoardFit, sheets: Sheets): string {
  const { pins, adc, pwm, controllers } = fit.headRoom;
  const open = fit.open.length > 0 ? `${fit.open.length} unconnected${fit.verdict === 'open' ? '' : ', not proved'}` : '';
  const findings = fit.findings.filter((f) => f.level !== 'hint').map((f) => describeFinding(fit.plan, sheets, f).title);
  const room = `${pins} pins free, ${adc} analog, ${pwm} PWM, ${controllers.i2c} I2C, ${controllers.spi} SPI, ${controllers.uart} serial`;
  return `${VERDICTS[fit.verdict].padEnd(8)} ${fit.board.padEnd(24)} ${[open, ...findings, room].filter(Boolean).join('; ')}`;
}

function partLine(plan: Plan, addition: CompleteAddition, sheets: Sheets): string {
  const fitted = addition.needs?.left.length === 0 ? addition.needs : undefined;
  const findings = fitted ? [] : addition.added.filter((f) => f.level !== 'hint');
  const moved = addition.moved.length > 0 ? `moves ${listText(addition.moved.map((key) => terminalText(plan, sheets, key)))}` : '';
  const words = [
    fitted ? `with ${needsText(fitted)}` : '',
    `${addition.pins} pins`,
    moved,
    ...findings.map((f) => describeFinding(addition.plan, sheets, f).title),
  ].filter(Boolean);
  return `${VERDICT_WORDS[completeVerdict(addition)].padEnd(8)} ${addition.part.padEnd(28)} ${words.join('; ')}`;
}

function switched(io: Io, opened: OpenPlan, board: string, options: FitsOptions): ExitCode {
  const { plan } = opened;
  const sheets = notedSheets(opened.sheets, plan.benchNotes);
  const onto = ontoBoard(plan, sheets, board, { nodes: NODES });
  if (!onto) throw new InputFault(`--switch ${board}: expected a board in the library (see: sheets --json)`);
  const { settlement } = onto;
  if (options.json)
    io.out(JSON.stringify({ edits: onto.edits, kept: onto.kept, lostLocks: onto.lostLocks, open: settlement.open }, null, 2));
  else if (options.out !== '-')
    io.out(
      [
        ...planChanges(plan, onto.plan, sheets),
        `${counted(onto.kept, 'wire')} unchanged; ${settlement.proved ? 'proved optimal' : 'best found in the time'}: ${costText(settlement.costs)}.`,
        ...(onto.lostLocks.length > 0 ? [`Locks removed: ${listText(onto.lostLocks.map((key) => terminalText(plan, sheets, key)))}.`] : []),
      ].join('\n'),
    );
  deliver(io, onto.plan, opened, options.out === undefined ? {} : { out: options.out });
  return settlement.open.length > 0 ? EXIT.clashes : EXIT.clean;
}

/** `fits`: boards ranked, or what else fits. Exit code 0 where the plan fits on some board, or some part fits; else 1. */
function fits({ io, open }: CommandContext, file: string, options: FitsOptions): ExitCode {
  const opened = open(file);
  if (options.switch !== undefined) return switched(io, opened, options.switch, options);
  const { plan, sheets: kept } = opened;
  const sheets = notedSheets(kept, plan.benchNotes);
  if (options.parts) {
    const all = [...kept.parts.values()].flatMap(({ sheet }) => completeAddition(plan, kept, sheet) ?? []);
    const short = ({ part, pins, moved, open, proved, added, needs }: CompleteAddition) => ({
      part,
      pins,
      moved,
      open,
      proved,
      findings: added.map(({ code, level, id }) => ({ code, level, id })),
      ...(needs
        ? { with: { adds: needs.adds, uses: needs.uses, components: needs.components, left: needs.left.map(({ id }) => id) } }
        : {}),
    });
    io.out(options.json ? JSON.stringify(all.map(short), null, 2) : all.map((a) => partLine(plan, a, sheets)).join('\n'));
    return all.some((a) => a.open.length === 0) ? EXIT.clean : EXIT.clashes;
  }
  const ranked = [...kept.boards.keys()].flatMap((id) => boardFit(plan, kept, id, { nodes: NODES }) ?? []).sort(compareFits);
  const short = ({ plan: _plan, edits: _edits, findings, ...fit }: BoardFit) => ({
    ...fit,
    findings: findings.map(({ code, level, id }) => ({ code, level, id })),
  });
  io.out(options.json ? JSON.stringify(ranked.map(short), null, 2) : ranked.map((fit) => boardLine(fit, sheets)).join('\n'));
  return ranked.some((fit) => fit.verdict === 'fits') ? EXIT.clean : EXIT.clashes;
}

export const registerFits: RegisterCommand = (program, context) => {
  program
    .command('fits')
    .description('Lists boards that fit the parts of the plan, best first; with --parts, parts that fit on its board.')
    .argument('<file>', PLAN)
    .option('--parts', 'for every part in the library: whether one more fits, which wires move, which findings result', false)
    .option('--switch <board>', 'move the plan to this board and assign its pins there')
    .option('--out <file>', 'with --switch: file for the changed plan (default: overwrite the input; - for standard output)')
    .option('--json', 'as JSON', false)
    .action((file: string, options: FitsOptions) => context.done(fits(context, file, options)));
};
