import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from '@playwright/test';
import type { AxeResults, RunOptions } from 'axe-core';
import { expect } from './workplace';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
const STANDARD = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];

const RULES: { readonly [K in 'all' | 'colours']: RunOptions['runOnly'] } = {
  all: { type: 'tag', values: STANDARD },
  colours: { type: 'rule', values: ['color-contrast', 'link-in-text-block'] },
};

/** What axe finds on the page as it is, with its places. There are no frames in it, so the scan runs in the page itself, which takes a
 *  fifth of the time of one that opens a page of its own.
 *  @param rules `colours`: those alone that a theme can change
 *  @param within a selector, where the page around it is scanned elsewhere */
export async function violations(page: Page, rules: keyof typeof RULES = 'all', within?: string): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in globalThis))) await page.evaluate(AXE);
  // Of the many rules that pass, one place each is enough.
  const options: RunOptions = { runOnly: RULES[rules]!, ...(rules === 'all' ? { resultTypes: ['violations'] } : {}) };
  const result = await page.evaluate(
    ({ options: asked, within: selector }) =>
      (globalThis as unknown as { axe: { run(root: Document | Element, options: RunOptions): Promise<AxeResults> } }).axe.run(
        selector ? document.querySelector(selector)! : document,
        asked,
      ),
    { options, within },
  );
  // A scan that looked at nothing would be clean, too.
  if (rules === 'all') expect(result.passes.length).toBeGreaterThan(within ? 4 : 10);
  else expect(result.passes.flatMap(({ id, nodes }) => (id === 'color-contrast' ? nodes : [])).length).toBeGreaterThan(within ? 0 : 10);
  return result.violations.map(
    (v) =>
      `${v.id}: ${v.nodes
        .map((n) => `${n.target.join(' ')} ${n.failureSummary ?? ''}`)
        .slice(0, 4)
        .join(' | ')}`,
  );
}
