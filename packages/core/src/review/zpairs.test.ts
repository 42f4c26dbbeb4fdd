import { shippedSheets } from '../../tests/catalogue';
import { additionOf } from './addition';
import { applyEdits } from '../plan/applyEdits';
import { newPlan } from '../plan/plan';
import { reviewPlan } from './review';
import { sayFinding } from '../checks/say';
import { isAboutFacts } from '../checks/registry';
import { writeFileSync } from 'node:fs';
test('pairs', () => {
  const sheets = shippedSheets();
  const rows: string[] = [];
  const counts = new Map<string, number>();
  for (const [bid, b] of sheets.boards)
    for (const [pid, p] of sheets.parts) {
      const plan = newPlan('p', 'P', { id: bid, version: b.sheet.version });
      let add;
      try {
        add = additionOf(plan, sheets, p.sheet);
      } catch (e) {
        rows.push(`${bid}\t${pid}\tTHROW ${(e as Error).message}`);
        continue;
      }
      if (!add) {
        rows.push(`${bid}\t${pid}\tNOADD`);
        continue;
      }
      const r = applyEdits(plan, add.edits, sheets);
      if (!r.ok) {
        rows.push(`${bid}\t${pid}\tREFUSED`);
        continue;
      }
      const rev = reviewPlan(r.plan, sheets);
      if (!rev.ok) continue;
      for (const f of rev.review.findings)
        if (f.level !== 'hint' && !isAboutFacts(f)) {
          const s = sayFinding(r.plan, sheets, f);
          counts.set(`${f.level} ${f.code}/${f.message}`, (counts.get(`${f.level} ${f.code}/${f.message}`) ?? 0) + 1);
          rows.push([bid, pid, f.level, f.code, f.message, s.title, s.text, f.remedies.length].join('\t'));
        }
    }
  writeFileSync('/tmp/pairs.tsv', rows.join('\n'));
  writeFileSync(
    '/tmp/paircounts.txt',
    [...counts]
      .sort((a, b) => b[1] - a[1])
      .map(([k, v]) => `${v}\t${k}`)
      .join('\n'),
  );
}, 600000);
