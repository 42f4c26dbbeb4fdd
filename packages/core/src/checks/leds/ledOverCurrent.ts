import { typical } from '../../quantity/range';
import { ledReports } from '../../electrics/reports/ledReport';
import { setDriversOf } from '../../electrics/reports/setDrivers';
import { partOf } from '../../plan/edit';
import { splitKey } from '../../plan/plan';
import type { Check, CheckContext, FindingDraft } from '../engine/check';
import { byPlacement, FIT_REMEDIES, fitResistors, ledData, ledPlace } from '../fixes/ledFixes';

export const ledOverCurrent: Check = {
  code: 'led-over-current',
  harm: true,
  question: 'Is the current of every LED below its maximum?',
  messages: {
    over: {
      title: 'LED over-current: {placement} up to {amps}, maximum {limit}',
      text: 'At {terminals}, worst case of supply, forward voltage and resistor.',
      why: 'I = (V − VF) / (R + Rout) with V at its maximum, VF, R and Rout at their minimum.',
    },
    few: {
      title: '{placement}: keep the scan limit at all digits, or lower the segment current',
      text: 'With the scan limit at {count}: {amps} per segment, maximum {limit}.',
      why: 'With fewer digits scanned, each is on for a longer share of the time, and the digit outputs dissipate more.',
    },
  },
  remedies: { ...FIT_REMEDIES, set: 'Use {ohms} at {terminal}' },
  examine: (context) => [...fewDigits(context), ...ofLeds(context)],
};

/** Drivers that are set to more current than they stand while they scan only the digits of the plan. */
const fewDigits = ({ plan, sheets }: CheckContext): readonly FindingDraft[] =>
  setDriversOf(plan, sheets).flatMap(({ placement, key, amps, few }): FindingDraft[] => {
    if (!few || !amps || amps.max <= few.maxAmps * (1 + 1e-9)) return [];
    const source = partOf(plan, placement, sheets)?.sheet.multiplex?.source;
    return [
      {
        level: 'hint',
        message: 'few',
        place: ledPlace(placement),
        data: {
          placement: { is: 'placement', id: placement },
          count: { is: 'count', value: few.digits, noun: 'digit' },
          amps: { is: 'quantity', value: amps.max, unit: 'A' },
          limit: { is: 'quantity', value: few.maxAmps, unit: 'A' },
        },
        ...(source ? { source } : {}),
        remedies: () =>
          few.fitOhms === undefined || key === undefined
            ? []
            : [
                {
                  label: 'set',
                  data: { ohms: { is: 'quantity', value: few.fitOhms, unit: 'Ω' }, terminal: { is: 'labels', keys: [key] } },
                  grade: 'offered',
                  edits: [{ kind: 'series', ...splitKey(key), ohms: few.fitOhms }],
                },
              ],
      },
    ];
  });

const ofLeds = (context: CheckContext): readonly FindingDraft[] =>
  byPlacement(
    ledReports(context.plan, context.sheets).filter((led) => led.ohms !== undefined && led.amps.max > led.ledAmps * (1 + 1e-9)),
  ).map((leds) => {
    const limit = Math.min(...leds.map((led) => led.ledAmps));
    const source = partOf(context.plan, leds[0].placement, context.sheets)?.sheet.polarity?.source;
    return {
      level: leds.some((led) => typical(led.amps) > limit * (1 + 1e-9)) ? 'clash' : 'risk',
      message: 'over',
      place: ledPlace(leds[0].placement),
      data: {
        ...ledData(leds),
        amps: { is: 'quantity', value: Math.max(...leds.map((led) => led.amps.max)), unit: 'A' },
        limit: { is: 'quantity', value: limit, unit: 'A' },
      },
      ...(source ? { source } : {}),
      remedies: () => fitResistors(leds, 'fit', 'offered'),
    };
  });
