import { isAboutFacts, type Finding } from '@roof-chart/core/checks/engine/check';
import { describeFinding, describeFix } from '@roof-chart/core/text/describe';
import { LEVEL_TEXT } from '@roof-chart/core/text/names';
import type { Plan } from '@roof-chart/core/plan/plan';
import { reviewPlan } from '@roof-chart/core/review/review';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { PLAN, type CommandContext, type RegisterCommand } from '../command';
import { EXIT, type ExitCode, InputFault } from '../io';

function asText(plan: Plan, sheets: Sheets, finding: Finding): string {
  const said = describeFinding(plan, sheets, finding);
  const remedies = finding.remedies.map((remedy) => `    fix: ${describeFix(plan, sheets, finding.code, remedy)}`);
  return [`${LEVEL_TEXT[finding.level]}  ${said.title}  [${finding.code}]`, `    ${said.text}`, ...remedies].join('\n');
}

/** Findings of a plan file. Exit code 0 without errors, 1 with errors. */
function check({ io, open }: CommandContext, file: string, json: boolean): ExitCode {
  const { plan, sheets } = open(file);
  const result = reviewPlan(plan, sheets);
  if (!result.ok)
    throw new InputFault(`${file}: the plan needs the ${result.missing.kind} sheet ${result.missing.id}, which is not in the library`);
  const { findings } = result.review;
  if (json) {
    const said = findings.map((f) => ({
      ...f,
      text: describeFinding(plan, sheets, f),
      remedies: f.remedies.map((r) => ({ ...r, text: describeFix(plan, sheets, f.code, r) })),
    }));
    io.out(JSON.stringify({ plan: plan.name, findings: said, ledgers: result.review.ledgers }, null, 2));
  } else {
    const lines = findings.map((f) => asText(plan, sheets, f));
    io.out([...(findings.every(isAboutFacts) ? ['No issues found.'] : []), ...lines].join('\n'));
  }
  return findings.some((f) => f.level === 'clash') ? EXIT.clashes : EXIT.clean;
}

export const registerCheck: RegisterCommand = (program, context) => {
  program
    .command('check')
    .description('Checks a plan: findings with their fixes.')
    .argument('<file>', PLAN)
    .option('--json', 'findings as JSON', false)
    .action((file: string, options: { json: boolean }) => context.done(check(context, file, options.json)));
};
