import { ledReports, loadsOf, sunkLoads, togetherAmps } from '../../electrics/reports/ledReport';
import { partSheet } from '../../sheets/sheetIndex';
import type { Placement } from '../../plan/plan';
import type { Check, CheckContext, FindingDraft } from '../engine/check';
import { FIT_REMEDIES, fitResistors } from '../fixes/ledFixes';

function examine(context: CheckContext, placement: Placement): readonly FindingDraft[] {
  const { plan, sheets } = context;
  const part = partSheet(sheets, placement.sheet)?.sheet;
  const drive = part?.drive ?? part?.sinks;
  if (!part || !drive) return [];
  const own = part.sinks
    ? sunkLoads(plan, sheets, placement.id)
    : loadsOf(plan, sheets).filter(
        (load) => load.driver.by === 'part' && load.driver.placement === placement.id && Number.isFinite(load.amps),
      );
  const amps = togetherAmps(own).peak;
  const most = Math.max(0, ...own.map((load) => load.amps));
  const [total, each] = [drive.totalMilliamps / 1000, drive.milliamps / 1000];
  const over = amps > total * (1 + 1e-9);
  if (!over && most <= each * (1 + 1e-9)) return [];
  const leds = ledReports(plan, sheets).filter((led) => own.some((load) => load.key === led.key));
  return [
    {
      level: 'clash',
      message: over ? 'all' : 'one',
      place: { placements: [placement.id], view: 'resistors' },
      data: {
        placement: { is: 'placement', id: placement.id },
        amps: { is: 'quantity', value: over ? amps : most, unit: 'A' },
        limit: { is: 'quantity', value: over ? total : each, unit: 'A' },
      },
      source: drive.source,
      remedies: () => (leds.length > 0 && leds.length === own.length ? fitResistors(leds, 'fit', 'offered') : []),
    },
  ];
}

const why =
  'Σ IO ≤ ICC(max), IGND(max): the supply and ground pins carry the sum of all outputs. Eight segments at 10 mA are 80 mA; a 74HC595 is limited to 70 mA.';

export const packageCurrentOver: Check = {
  code: 'package-current-over',
  harm: true,
  question: 'Is the total output current of every chip within its limit?',
  planWide: true,
  messages: {
    all: { title: '{placement}: total output current {amps}, limit {limit}', text: 'Sum of all outputs.', why },
    one: { title: '{placement}: output current {amps}, limit {limit}', text: 'A single output.', why },
  },
  remedies: FIT_REMEDIES,
  examine: (context) => context.plan.placements.flatMap((placement) => examine(context, placement)),
};
