import type { Check, FindingDraft } from './check';

/** The engine reports a check that throws here, so that the other checks still run and its silence is not taken for a pass. */
export const checkFailed: Check = {
  code: 'check-failed',
  question: 'Did every check run?',
  planWide: true,
  messages: {
    failed: {
      title: 'Check failed: {check}',
      text: 'This check stopped with an error; its result is unknown. All other checks ran.',
      why: 'Error: {reason}. The usual cause is an impossible value in one of your own sheets or a measured fact; check the last change.',
    },
  },
  remedies: {},
  examine: () => [],
};

/** What is reported of a check that failed. */
export const failureDraft = (code: string, reason: string): FindingDraft => ({
  level: 'risk',
  message: 'failed',
  place: { check: code },
  data: { check: { is: 'words', text: code }, reason: { is: 'words', text: reason } },
  remedies: () => [],
});
