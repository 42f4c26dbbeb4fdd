import type { Check } from '../checks/engine/check';

const code = (template: string): string => template.replace(/\{(\w+)\}/g, '‹$1›');

/** The documentation page of a check as Markdown, generated from the check. Text in ‹ › is filled in by the finding. */
export function checkPage(check: Check): string {
  const messages = Object.entries(check.messages).map(
    ([id, message]) => `### ${code(message.title)}\n\n\`${check.code}/${id}\`\n\n${code(message.text)}\n\n*Why:* ${code(message.why)}\n`,
  );
  const remedies = Object.values(check.remedies).map((template) => `- ${code(template)}`);
  return [
    `# ${check.code}`,
    '',
    check.question,
    '',
    '## Findings',
    '',
    ...messages,
    '## Fixes',
    '',
    ...(remedies.length > 0 ? remedies : ['No single-step fix.']),
    '',
  ].join('\n');
}

/** The index of all check pages as Markdown. */
export function checkIndex(checks: readonly Check[]): string {
  return [
    '# Checks',
    '',
    'Generated from the checks: `npm run docs:checks`.',
    '',
    ...checks.map((check) => `- [\`${check.code}\`](${check.code}.md): ${check.question}`),
    '',
  ].join('\n');
}
