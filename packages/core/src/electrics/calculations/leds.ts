import { firstOrThrow, lastOrThrow } from '../../collections/orThrow';
import { formatSi } from '../../quantity/format';
import { point } from '../../quantity/range';
import type { PartSheet } from '../../sheets/partSheet';
import { currentSetAmps, currentSetOhms, driverAmps } from '../formulas/currentSet';
import { ledResistor, multiplexed } from '../formulas/led';
import {
  above,
  type CalcContext,
  type Calculation,
  cornersFrom,
  finite,
  NO_VALUE,
  SERIES_INPUT,
  share,
  SUPPLY_TOO_LOW,
  TOLERANCE_INPUT,
  type Values,
  valuesIn,
  verdictOutput,
  whole,
} from './calculation';
import { FLICKER, LED_SHEET, PREFERRED_VALUES } from '../formulas/documents';

export const led: Calculation = {
  id: 'led',
  words: 'LED series resistor and the worst-case currents.',
  inputs: [
    { name: 'supply', words: 'supply', unit: 'V', default: '3.3' },
    { name: 'supply-tolerance', words: 'supply tolerance, as a fraction', unit: '1', default: '0.05' },
    { name: 'vf', words: 'forward voltage', unit: 'V', default: '2' },
    { name: 'vf-min', words: 'forward voltage, minimum (0: nominal)', unit: 'V', default: '0' },
    { name: 'vf-max', words: 'forward voltage, maximum (0: nominal)', unit: 'V', default: '0' },
    { name: 'current', words: 'LED current', unit: 'A', default: '5m' },
    { name: 'drive', words: 'output resistance of the pin or switch', unit: 'Ω', default: '0' },
    { name: 'drop', words: 'transistor drop, VCE(sat)', unit: 'V', default: '0' },
    TOLERANCE_INPUT,
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'exactOhms', unit: 'Ω', words: 'exact resistance' },
    { name: 'ohms', unit: 'Ω', words: 'next preferred value up' },
    { name: 'ampsMin', unit: 'A', words: 'LED current, minimum' },
    { name: 'ampsMax', unit: 'A', words: 'LED current, maximum' },
    { name: 'watts', unit: 'W', words: 'power dissipation of the resistor, maximum' },
    { name: 'ratingWatts', unit: 'W', words: 'power rating with a factor of 2' },
    verdictOutput({
      good: 'lit in every case, and within its limits',
      'dark-at-worst': 'no current in the worst case',
      ...SUPPLY_TOO_LOW,
      ...NO_VALUE,
      'none-needed': 'no resistor needed',
    }),
  ],
  source: `${LED_SHEET}; ${PREFERRED_VALUES}`,
  run(values) {
    const supply = values.number('supply');
    const spread = share(values, 'supply-tolerance');
    const vf = values.number('vf');
    const { working, ...found } = ledResistor({
      supply: { min: supply * (1 - spread), typ: supply, max: supply * (1 + spread) },
      forwardVolts: { min: values.number('vf-min') || vf, typ: vf, max: values.number('vf-max') || vf },
      amps: values.number('current'),
      driveOhms: values.number('drive'),
      dropVolts: values.number('drop'),
      tolerance: share(values, 'tolerance'),
      values: valuesIn(values, 1, 10e6),
    });
    return {
      outputs: {
        exactOhms: finite(found.exactOhms),
        ohms: finite(found.ohms),
        ampsMin: finite(found.amps?.min),
        ampsMax: finite(found.amps?.max),
        watts: finite(found.watts),
        ratingWatts: finite(found.ratingWatts),
        verdict: found.verdict,
      },
      ...cornersFrom('A', found.amps ? [{ label: 'LED current', range: found.amps }] : []),
      working,
    };
  },
};

export const digits: Calculation = {
  id: 'multiplex',
  words: 'Multiplexed digits: refresh rate, duty cycle, peak and digit current.',
  inputs: [
    { name: 'digits', words: 'digits', unit: '1', default: '4' },
    { name: 'dwell', words: 'dwell time per digit', unit: 's', default: '3m' },
    { name: 'average', words: 'average segment current', unit: 'A', default: '2m' },
    { name: 'segments', words: 'segments per digit, including the decimal point', unit: '1', default: '8' },
    { name: 'supply', words: 'supply, or VOH of the outputs', unit: 'V', default: '5' },
    { name: 'vf', words: 'segment forward voltage', unit: 'V', default: '2' },
    { name: 'digit-drop', words: 'digit transistor drop, VCE(sat)', unit: 'V', default: '0.2' },
    { name: 'drive', words: 'output resistance of a segment driver', unit: 'Ω', default: '0' },
    { name: 'peak-most', words: 'maximum pulsed segment current', unit: 'A', default: '60m' },
    { name: 'package-most', words: 'maximum total output current', unit: 'A', default: '70m' },
    { name: 'common', words: 'common terminal: cathode or anode', unit: 'text', default: 'cathode' },
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'refreshHz', unit: 'Hz', words: 'refresh rate' },
    { name: 'duty', unit: '1', words: 'duty cycle, as a fraction' },
    { name: 'peakAmps', unit: 'A', words: 'peak segment current' },
    { name: 'digitAmps', unit: 'A', words: 'digit current with all segments lit' },
    { name: 'exactOhms', unit: 'Ω', words: 'exact segment resistor' },
    { name: 'ohms', unit: 'Ω', words: 'next preferred value up' },
    { name: 'transistor', unit: 'text', words: 'digit switch' },
    verdictOutput({
      steady: 'no visible flicker, and within the limits',
      flickers: 'refresh rate below 70 Hz',
      'pulse-over': 'segment current above the pulsed maximum',
      'package-over': 'total output current above the maximum',
      ...SUPPLY_TOO_LOW,
      ...NO_VALUE,
    }),
  ],
  source: `${FLICKER}; ${LED_SHEET}`,
  run(values) {
    const common = values.text('common').trim();
    if (common !== 'cathode' && common !== 'anode') throw new RangeError(`common ${common}: expected cathode or anode`);
    const { working, flickers, ...outputs } = multiplexed({
      digits: whole(values, 'digits'),
      dwell: above(values, 'dwell'),
      averageAmps: above(values, 'average'),
      segments: whole(values, 'segments'),
    });
    const supply = values.number('supply');
    const resistor = ledResistor({
      supply: point(supply),
      forwardVolts: point(values.number('vf')),
      amps: outputs.peakAmps,
      driveOhms: values.number('drive'),
      dropVolts: values.number('digit-drop'),
      tolerance: 0,
      values: valuesIn(values, 1, 10e6),
    });
    // The same current in other steps of arithmetic is no more than it was.
    const isOver = (amps: number, name: string) => amps > above(values, name) * (1 + 1e-9);
    // What destroys goes before what is only seen.
    const verdict =
      resistor.verdict === 'too-low' || resistor.verdict === 'no-value'
        ? resistor.verdict
        : isOver(outputs.peakAmps, 'peak-most')
          ? 'pulse-over'
          : isOver(outputs.digitAmps, 'package-most')
            ? 'package-over'
            : flickers
              ? 'flickers'
              : 'steady';
    const [count, dwell] = [whole(values, 'digits'), above(values, 'dwell')];
    return {
      outputs: {
        ...outputs,
        exactOhms: finite(resistor.exactOhms),
        ohms: finite(resistor.ohms),
        transistor: common === 'cathode' ? 'NPN or N-MOS, to ground' : 'PNP or P-MOS, from the supply',
        verdict,
      },
      working: [...working, ...resistor.working],
      // Of many digits the first ones show it.
      spans: {
        unit: 's',
        from: 0,
        to: count * dwell,
        rows: Array.from({ length: Math.min(count, 16) }, (_, at) => ({
          label: `digit ${at + 1}`,
          range: { min: at * dwell, max: (at + 1) * dwell },
        })),
        windows: [],
      },
    };
  },
};

/** The part with the requested table.
 *  @throws RangeError naming those that have one */
function tableOf(values: Values, { sheets }: CalcContext): NonNullable<PartSheet['currentSet']> {
  const id = values.text('sheet').trim();
  const parts = [...sheets().parts.values()].map((part) => part.sheet);
  const table = parts.find((part) => part.id === id)?.currentSet;
  if (table) return table;
  const having = parts.flatMap((part) => (part.currentSet ? [part.id] : []));
  throw new RangeError(
    `sheet ${id}: expected a part with a table of segment currents: ${[...new Set(having)].join(', ') || 'none available'}`,
  );
}

export const currentSetting: Calculation = {
  id: 'current-set',
  words: 'Current-setting resistor (RSET) of an LED driver, from the table of its datasheet.',
  inputs: [
    { name: 'sheet', words: 'driver sheet', unit: 'text' },
    { name: 'current', words: 'segment current', unit: 'A', default: '20m' },
    { name: 'vf', words: 'forward voltage of the LEDs', unit: 'V', default: '2' },
    TOLERANCE_INPUT,
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'exactOhms', unit: 'Ω', words: 'exact resistance, on the side of less current' },
    { name: 'ohms', unit: 'Ω', words: 'next preferred value up' },
    { name: 'ampsMin', unit: 'A', words: 'segment current, minimum' },
    { name: 'ampsMax', unit: 'A', words: 'segment current, maximum' },
    { name: 'totalAmps', unit: 'A', words: 'total driver current with all segments lit, maximum' },
  ],
  source: 'Datasheet of the driver, table of RSET against segment current and forward voltage (MAX7219: table 11)',
  run(values, context) {
    const table = tableOf(values, context);
    const [amps, volts] = [above(values, 'current'), above(values, 'vf')];
    const [first, last] = [firstOrThrow(table.ledVolts), lastOrThrow(table.ledVolts)];
    if (volts < first || volts > last) throw new RangeError(`vf ${volts}: the datasheet table covers ${first} V to ${last} V`);
    const exact = currentSetOhms(table, amps, volts);
    const ohms = valuesIn(values, 100, 10e6).find((value) => value >= exact * (1 - 1e-9));
    const document = `${table.source.document}${table.source.section ? `, ${table.source.section}` : ''}`;
    const given = ohms === undefined ? undefined : currentSetAmps(table, ohms, volts, share(values, 'tolerance'));
    return {
      outputs: {
        exactOhms: exact,
        ohms: finite(ohms),
        ampsMin: finite(given?.min),
        ampsMax: finite(given?.max),
        totalAmps: finite(given && driverAmps(table, given).max),
      },
      working: [
        {
          formula: 'R from the table at I and VF',
          values: `${formatSi(amps, 'A')} at ${formatSi(volts, 'V')}: ${formatSi(exact, 'Ω')}`,
          source: document,
        },
        ...(ohms === undefined || !given
          ? []
          : [
              {
                formula: 'R: next preferred value up',
                values: `${formatSi(exact, 'Ω')} → ${formatSi(ohms, 'Ω')}`,
                source: PREFERRED_VALUES,
              },
              {
                formula: 'I from the table at R · (1 + tolerance) and R · (1 − tolerance)',
                values: `${formatSi(given.min, 'A')} to ${formatSi(given.max, 'A')}`,
                source: document,
              },
              {
                formula: 'Itotal = Isupply + segments · I',
                values: `${formatSi((table.ownMilliamps ?? 0) / 1000, 'A')} + ${table.segments} · ${formatSi(given.max, 'A')} = ${formatSi(driverAmps(table, given).max, 'A')}`,
                source: document,
              },
            ]),
      ],
    };
  },
};
