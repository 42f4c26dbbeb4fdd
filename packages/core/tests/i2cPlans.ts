import { describeFinding } from '../src/text/describe';
import type { Edit } from '../src/plan/edit';
import type { Plan } from '../src/plan/plan';
import { shippedSheets } from './catalogue';
import { codesAfter, findingsOf } from './checkHarness';
import { add, edited, stick, wire } from './makePlan';

const sheets = shippedSheets();

/** A part on the first I2C bus of the RP2040 stick. */
export const member = (id: string, sheet: string, name = id, rail = '3v3'): Edit[] => [
  add(id, sheet, name),
  wire(`${id}:SDA`, 'GP4'),
  wire(`${id}:SCL`, 'GP5'),
  wire(`${id}:VCC`, `rail ${rail}`),
  wire(`${id}:GND`, 'ground'),
];

export const plan = (...edits: readonly Edit[]): Plan => edited(stick(), sheets, ...edits);

/** The texts of all findings of a code. */
export const said = (code: string, of: Plan): readonly string[] =>
  findingsOf(of, sheets)
    .filter((f) => f.code === code)
    .map((f) => describeFinding(of, sheets, f).text);

export const pullUpCodes = (of: Plan) => codesAfter(of, sheets).filter((code) => code.startsWith('pullup') || code.startsWith('pin'));
