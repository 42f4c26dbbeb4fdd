import type { Evidence } from './identify';

const BY = { label: '', synonym: 'another name of', trade: 'as some print', misread: 'misread for' } as const;

/** A piece of evidence as one short sentence.
 *  @example sayEvidence({ is: 'order', reversed: true }) // 'printed order fits, read from the other end' */
export function sayEvidence(evidence: Evidence): string {
  switch (evidence.is) {
    case 'labels': {
      const odd = evidence.matched
        .filter((m) => m.by !== 'label')
        .map((m) => `${m.label} ${BY[m.by as keyof typeof BY]} ${m.terminal}`.replace('as some print', 'printed for'));
      const count = `${evidence.matched.length} ${evidence.matched.length === 1 ? 'label fits' : 'labels fit'}`;
      return odd.length > 0 ? `${count} (${odd.join(', ')})` : count;
    }
    case 'strange-labels':
      return `no terminal ${evidence.labels.join(', ')}`;
    case 'unseen-labels':
      return `${evidence.labels.join(', ')} not seen`;
    case 'order':
      return evidence.reversed ? 'printed order fits, read from the other end' : 'printed order fits';
    case 'pins':
      return evidence.counted === evidence.sheet
        ? `${evidence.sheet} connection points`
        : `${evidence.sheet} connection points, not ${evidence.counted}`;
    case 'size':
      return `size ${evidence.size}`;
    case 'does':
      return `“${evidence.words}”`;
    case 'chip':
      return `chip ${evidence.chip}`;
  }
}
