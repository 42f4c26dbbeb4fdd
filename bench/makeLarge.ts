import { cpSync, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import { newPlan, type Plan } from '@roof-chart/core/plan/plan';
import { additionOf } from '@roof-chart/core/review/addition';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { largeBoard } from './largeBoard';

/** Parts of every kind of bus; named, so that a growing catalogue leaves the measured plan as it is. */
const PARTS = [
  'clock-ds3231-eeprom',
  'encoder-rotary-switch',
  'humidity-sht31',
  'lcd-2004-pcf8574',
  'led-red-5mm',
  'load-cell-hx711',
  'motion-mpu6050',
  'oled-096-ssd1306-i2c',
  'sd-card-3v3',
];

/** A plan of 30 parts on the large board, wired where they fit: 120 wires and some. */
export function largePlan(sheets: Sheets): Plan {
  const parts = PARTS.map((id) => sheets.parts.get(id)!.sheet);
  let plan = newPlan('large', 'Large plan', { id: 'made-up-144', version: 1 });
  for (let n = 0; n < 30; n += 1) {
    const addition = additionOf(plan, sheets, parts[n % parts.length]!)!;
    const result = applyEdits(plan, addition.edits, sheets);
    if (!result.ok) throw new Error(result.problem.expected);
    plan = result.plan;
  }
  return plan;
}

/** Writes a catalogue with the large board, and the large plan as an example, for the browser to be measured on. */
export function writeLarge(root: string, folder: string, plans: readonly Plan[]): void {
  cpSync(join(root, 'packages/catalogue'), join(folder, 'catalogue'), { recursive: true });
  writeFileSync(join(folder, 'catalogue/boards/made-up-144.json'), JSON.stringify(largeBoard()));
  mkdirSync(join(folder, 'plans'), { recursive: true });
  for (const plan of plans) writeFileSync(join(folder, `plans/${plan.id}.json`), JSON.stringify(plan));
}
