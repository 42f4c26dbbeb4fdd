import { counted } from '../quantity/format';
import type { Evidence } from '../identify/identify';

const BY = { synonym: 'another name of', trade: 'printed for', misread: 'misread for' } as const;

/** A piece of evidence as one short sentence.
 *  @example sayEvidence({ is: 'order', reversed: true }) // 'order matches from the other end' */
export function evidenceText(evidence: Evidence): string {
  switch (evidence.is) {
    case 'labels': {
      const odd = evidence.matched.filter((m) => m.by !== 'label').map((m) => `${m.label} ${BY[m.by as keyof typeof BY]} ${m.terminal}`);
      const count = `${evidence.matched.length} ${evidence.matched.length === 1 ? 'label matches' : 'labels match'}`;
      return odd.length > 0 ? `${count} (${odd.join(', ')})` : count;
    }
    case 'strange-labels':
      return `no terminal ${evidence.labels.join(', ')}`;
    case 'unseen-labels':
      return `${evidence.labels.join(', ')} not printed`;
    case 'order':
      return evidence.reversed ? 'order matches from the other end' : 'order matches';
    case 'pins':
      return evidence.counted === evidence.sheet
        ? counted(evidence.sheet, 'pin')
        : `${counted(evidence.sheet, 'pin')}, not ${evidence.counted}`;
    case 'size':
      return `size ${evidence.size}`;
    case 'does':
      return `“${evidence.words}”`;
    case 'chip':
      return `chip ${evidence.chip}`;
  }
}
