import type { Plan } from '@roof-chart/core/plan/plan';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { partSheet, type Sheets } from '@roof-chart/core/sheets/sheetIndex';

/** One step of the guided example. */
export interface GuideStep {
  readonly title: string;
  readonly text: string;
  /** The view where it is done; absent for what is done in the findings, beside every view. */
  readonly view?: { readonly path: 'stock' | 'build'; readonly label: string };
  readonly isDone: boolean;
}

/** The way of the guided example, each step done as soon as the plan shows it.
 *  @param errors open errors of the last review; undefined until there is one */
export function guideSteps(plan: Plan, sheets: Sheets, errors: number | undefined): readonly GuideStep[] {
  const partsWith = (has: (part: PartSheet) => boolean) =>
    plan.placements.some(({ sheet }) => {
      const part = partSheet(sheets, sheet)?.sheet;
      return part !== undefined && has(part);
    });
  const hasSensor = partsWith(({ family }) => family === 'sensor');
  return [
    {
      title: 'Add a display',
      text: 'Search for “OLED”, choose one on I2C, then Add and connect: it gets the pins of the usual I2C bus.',
      view: { path: 'stock', label: 'Parts' },
      isDone: partsWith(({ readout }) => readout !== undefined),
    },
    {
      title: 'Add a 5 V sensor',
      text: 'Search for “ultrasonic, needs 5 V” and add that sensor. Its echo is 5 V, the pins of this board take 3.3 V: Findings reports it.',
      view: { path: 'stock', label: 'Parts' },
      isDone: hasSensor,
    },
    {
      title: 'Resolve the error',
      text: 'Open the finding: it says what is wrong and by how much. Apply the divider: two resistors with their values come into the plan.',
      isDone: hasSensor && errors === 0,
    },
    {
      title: 'Build it',
      text: 'The build sheet lists every wire and resistor in the order to plug them in. Mark its first step, Disconnect power, as done.',
      view: { path: 'build', label: 'Build' },
      isDone: plan.steps['safety:board'] !== undefined,
    },
  ];
}
