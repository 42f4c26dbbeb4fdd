import { requirePositive } from './requirePositive';
import { formatSi } from '../../quantity/format';
import type { Step, Worked } from './working';
import { CIRCUIT_THEORY, MOSFET_SHEET, OUTPUT_SHEET, PREFERRED_VALUES } from './documents';

/** Voltage between base and emitter of a transistor that is on. */
export const BASE_VOLTS = 0.7;

/** The base resistor with which a transistor carries a load at a forced gain, in ohms; not above zero where the level is too low.
 *  @example baseResistor({ high: 3.3, vbe: 0.7, gain: 10, amps: 0.05 }) // 520 */
export const baseResistor = ({
  high,
  vbe,
  gain,
  amps,
}: {
  readonly high: number;
  readonly vbe: number;
  readonly gain: number;
  readonly amps: number;
}): number => ((high - vbe) * gain) / amps;

export interface GateInput {
  readonly highVolts: number;
  /** Most at which it only begins to conduct, and the gate voltage at which its sheet gives the resistance. */
  readonly thresholdVolts: number;
  readonly ratedVolts: number;
  readonly onOhms: number;
  readonly amps: number;
  /** Charge of the gate, in coulombs. */
  readonly coulombs: number;
  /** Most that the pin gives, in amperes. */
  readonly pinAmps: number;
  /** Power limit of its package, in watts. */
  readonly mostWatts: number;
  readonly values: readonly number[];
}

export interface GateDrive {
  /** Gate resistor: next value up, so that the charging current stays within the pin's limit. */
  readonly gateOhms: number | undefined;
  /** Gate-to-source resistor: 100 times as large, so that it reduces the level by 1 %. */
  readonly downOhms: number | undefined;
  readonly switchSeconds: number | undefined;
  /** While it is on: what it keeps, and what it turns into heat. */
  readonly dropVolts: number;
  readonly watts: number;
  readonly verdict: 'good' | 'weak' | 'off' | 'hot';
}

function gateWorking({ highVolts, coulombs }: GateInput, exact: number, gateOhms: number, downOhms: number | undefined): readonly Step[] {
  return [
    {
      formula: 'RG: next preferred value up; RGS ≥ 100 · RG',
      values: `${formatSi(exact, 'Ω')} → ${formatSi(gateOhms, 'Ω')}; ${downOhms === undefined ? 'none' : formatSi(downOhms, 'Ω')}`,
      source: PREFERRED_VALUES,
    },
    {
      formula: 't ≈ Qg · RG / (VOH / 2)',
      values: `${formatSi(coulombs, 'C')} · ${formatSi(gateOhms, 'Ω')} / ${formatSi(highVolts / 2, 'V')} = ${formatSi((coulombs * gateOhms) / (highVolts / 2), 's')}`,
      source: MOSFET_SHEET,
    },
  ];
}

/** A field-effect transistor at a pin.
 *  @throws RangeError when a value is not above zero */
export function gateDrive(input: GateInput): Worked<GateDrive> {
  const { highVolts, thresholdVolts, ratedVolts, onOhms, amps, coulombs, pinAmps, mostWatts, values } = input;
  requirePositive({
    high: highVolts,
    threshold: thresholdVolts,
    rds: onOhms,
    load: amps,
    charge: coulombs,
    pin: pinAmps,
    'most-watts': mostWatts,
  });
  const exact = highVolts / pinAmps;
  const gateOhms = values.find((value) => value >= exact * (1 - 1e-9));
  const downOhms = gateOhms === undefined ? undefined : values.find((value) => value >= 100 * gateOhms * (1 - 1e-9));
  const watts = amps ** 2 * onOhms;
  return {
    gateOhms,
    downOhms,
    switchSeconds: gateOhms && (coulombs * gateOhms) / (highVolts / 2),
    dropVolts: amps * onOhms,
    watts,
    verdict: highVolts < thresholdVolts ? 'off' : highVolts < ratedVolts ? 'weak' : watts > mostWatts * (1 + 1e-9) ? 'hot' : 'good',
    working: [
      {
        formula: 'VOH ≥ VGS of the stated RDS(on)',
        values: `${formatSi(highVolts, 'V')} against ${formatSi(ratedVolts, 'V')}; VGS(th) up to ${formatSi(thresholdVolts, 'V')}`,
        source: MOSFET_SHEET,
      },
      {
        formula: 'RG = VOH / Ipin',
        values: `${formatSi(highVolts, 'V')} / ${formatSi(pinAmps, 'A')} = ${formatSi(exact, 'Ω')}`,
        source: OUTPUT_SHEET,
      },
      ...(gateOhms === undefined ? [] : gateWorking(input, exact, gateOhms, downOhms)),
      {
        formula: 'VDS = I · RDS(on)',
        values: `${formatSi(amps, 'A')} · ${formatSi(onOhms, 'Ω')} = ${formatSi(amps * onOhms, 'V')}`,
        source: CIRCUIT_THEORY,
      },
      {
        formula: 'P = I² · RDS(on)',
        values: `${formatSi(amps, 'A')}² · ${formatSi(onOhms, 'Ω')} = ${formatSi(watts, 'W')}, limit of the package ${formatSi(mostWatts, 'W')}`,
        source: MOSFET_SHEET,
      },
    ],
  };
}
