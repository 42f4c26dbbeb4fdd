import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { shippedSheets } from '../../tests/catalogue';
import { readPlanFile } from '../plan/planFile';
import { chartSvg } from './chartSvg';
import { escapeXml } from './svgText';

const sheets = shippedSheets();

/** Whether every tag of a text is closed in its order. */
function isWellFormed(xml: string): boolean {
  const open: string[] = [];
  for (const [, closing, name, alone] of xml.matchAll(/<(\/?)([a-z]+)(?:\s[a-zA-Z:-]+="[^"<]*")*\s*(\/?)>/g)) {
    if (alone) continue;
    if (closing) {
      if (open.pop() !== name) return false;
    } else open.push(name!);
  }
  return open.length === 0 && !/<(?!\/?[a-z])/.test(xml);
}

test.each(['hive-watch', 'proofing-box', 'ferry-dial', 'workbench-scoreboard'])(
  'the chart of %s has a disc for every wire to the board',
  (id) => {
    const read = readPlanFile(JSON.parse(readFileSync(join(__dirname, `../../../../demo/plans/${id}.json`), 'utf8')));
    if (!read.ok) throw new Error(read.fault);
    const { plan } = read.file;
    const svg = chartSvg({ ...plan, name: '</svg><script>"&' }, sheets)!;
    expect(isWellFormed(svg)).toBe(true);
    expect(svg).not.toContain('<script');
    const hung = Object.values(plan.wires).filter(({ end }) => end.to !== 'terminal').length;
    expect(svg.match(/<circle /g)).toHaveLength(hung);
    // The two findings that are left in the first example are a clash on one pin and one on a bus: the pin is red and broken.
    expect(svg.includes('stroke-dasharray')).toBe(id === 'hive-watch');
  },
);

test('what is no text of XML becomes blank', () => {
  expect(escapeXml('a\u0000<b>&"')).toBe('a &lt;b&gt;&amp;&quot;');
});
