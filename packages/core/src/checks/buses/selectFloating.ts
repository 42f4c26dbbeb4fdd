import { spiReport } from '../../electrics/reports/spiReport';
import { valuesWithin, nearestOf } from '../../quantity/series';
import type { Bus } from '../../nets/buses';
import type { PlanTerminal } from '../../nets/terminals';
import type { Check, CheckContext, FindingDraft, Remedy } from '../engine/check';

/** Usual resistor that holds a select high, in ohms. */
const USUAL = 10_000;

function resistors(context: CheckContext, floating: readonly PlanTerminal[]): readonly Remedy[] {
  const ohms = nearestOf(valuesWithin(context.plan.valuesOnHand, 2000, 100_000), USUAL);
  if (ohms === undefined) return [];
  return [
    {
      label: 'pull',
      data: { ohms: { is: 'quantity', value: ohms, unit: 'Ω' }, terminals: { is: 'terminals', keys: floating.map((t) => t.key) } },
      grade: 'offered',
      edits: floating.map(({ placement, terminal }) => ({
        kind: 'pull',
        placement: placement.id,
        terminal: terminal.id,
        pull: { ohms, to: 'supply' },
      })),
    },
  ];
}

function examine(context: CheckContext, bus: Bus): readonly FindingDraft[] {
  const rows = spiReport(context.plan, context.sheets, context.board, bus).rows.filter(
    // The chips of one module are made to start together.
    (row) => !row.further && row.select?.wire?.end.to === 'pin',
  );
  const floating = rows.flatMap(({ select, held }) => (select && !held ? [select] : []));
  if (rows.length < 2 || floating.length === 0) return [];
  return [
    {
      // Most builds start all the same: what is sent before the program runs is rarely anything.
      level: 'hint',
      message: floating.length === 1 ? 'one' : 'some',
      place: { pins: bus.pins.sck ? [bus.pins.sck] : [], ...(bus.controller ? { bus: bus.controller } : {}) },
      data: {
        count: { is: 'count', value: floating.length },
        selects: { is: 'terminals', keys: floating.map((t) => t.key) },
        state: { is: 'words', text: context.board.sheet.electrical.resetState },
      },
      source: context.board.sheet.electrical.source,
      remedies: () => resistors(context, floating),
    },
  ];
}

const why =
  'Until the program configures its pins, CS floats, and a device may respond to traffic meant for another one. State after reset: {state} A pull-up resistor at each CS keeps all devices deselected.';

export const selectFloating: Check = {
  code: 'select-floating',
  question: 'Are the chip selects of a shared SPI bus held high during reset?',
  messages: {
    one: { title: 'Chip select floats during reset: {selects}', text: 'No pull-up resistor holds it high.', why },
    some: { title: '{count} chip selects float during reset', text: '{selects}: no pull-up resistors hold them high.', why },
  },
  remedies: { pull: 'Add {ohms} from {terminals} to the supply' },
  examine: (context) => context.buses.filter((bus) => bus.kind === 'spi').flatMap((bus) => examine(context, bus)),
};
