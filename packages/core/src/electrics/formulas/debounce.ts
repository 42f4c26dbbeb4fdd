import { requirePositive } from './requirePositive';
import { formatSi, significant } from '../../quantity/format';
import type { Step, Worked } from './working';
import { CIRCUIT_THEORY, INPUT_SHEET, PREFERRED_VALUES } from './documents';

export interface DebounceInput {
  readonly volts: number;
  /** From the supply to the pin, in ohms. */
  readonly pullOhms: number;
  /** From the pin and its capacitor to the key, in ohms. */
  readonly seriesOhms: number;
  /** How long the contact may bounce, in seconds. */
  readonly bounceSeconds: number;
  /** Input thresholds VIL and VIH of the pin, in volts. */
  readonly lowVolts: number;
  readonly highVolts: number;
  /** Of the resistors and of the capacitor, as shares. */
  readonly tolerance: number;
  readonly faradTolerance: number;
  /** Values of capacitors there are, in farads, in rising order. */
  readonly values: readonly number[];
}

export interface Debounce {
  /** The least capacitance that keeps the pin low through the bounce, in farads. */
  readonly exactFarads: number | undefined;
  /** The next value up whose worst corner is at least that. */
  readonly farads: number | undefined;
  /** Until the pin is certainly low after the key went down, and high after it came up, at the slowest corner, in seconds. */
  readonly pressSeconds: number | undefined;
  readonly releaseSeconds: number | undefined;
  /** Through the contact when it closes, in amperes. */
  readonly contactAmps: number;
  readonly verdict: 'good' | 'slow' | 'never-low' | 'no-value';
}

/** Longer than this until a key counts, and fingers notice. */
const SLOW_SECONDS = 50e-3;

interface Times {
  readonly exact: number;
  readonly farads: number;
  /** The capacitor at the upper end of its tolerance, in farads. */
  readonly most: number;
  /** Both resistors in parallel, in ohms. */
  readonly both: number;
  /** The pin while the key is down, in volts. */
  readonly pressed: number;
  readonly pressSeconds: number;
  readonly releaseSeconds: number;
}

function timesWorking(
  { volts, pullOhms, lowVolts, highVolts, tolerance, faradTolerance }: DebounceInput,
  { exact, farads, most, both, pressed, pressSeconds, releaseSeconds }: Times,
): readonly Step[] {
  return [
    {
      formula: 'C: next preferred value up after tolerance',
      values: `${formatSi(farads, 'F')} − ${significant(faradTolerance * 100)} % ≥ ${formatSi(exact, 'F')}`,
      source: PREFERRED_VALUES,
    },
    {
      formula: 'tpress = (Rs ∥ Rp) · C · ln((V − Vpressed) / (VIL − Vpressed))',
      values: `${formatSi(both, 'Ω')} · ${formatSi(most, 'F')} · ${significant(Math.log((volts - pressed) / (lowVolts - pressed)))} = ${formatSi(pressSeconds, 's')}`,
      source: INPUT_SHEET,
    },
    {
      formula: 'trelease = Rp · C · ln(V / (V − VIH))',
      values: `${formatSi(pullOhms * (1 + tolerance), 'Ω')} · ${formatSi(most, 'F')} · ${significant(Math.log(volts / (volts - highVolts)))} = ${formatSi(releaseSeconds, 's')}`,
      source: INPUT_SHEET,
    },
  ];
}

/** The capacitor that holds a key's pin still while its contact bounces: a pull-up to the supply, a resistor to the key, the capacitor
 *  from the pin to ground.
 *  @throws RangeError when a value is not above zero, or the thresholds do not lie one above the other between ground and supply */
export function debounce(input: DebounceInput): Worked<Debounce> {
  const { volts, pullOhms, seriesOhms, bounceSeconds, lowVolts, highVolts, tolerance, faradTolerance, values } = input;
  requirePositive({ supply: volts, pull: pullOhms, series: seriesOhms, bounce: bounceSeconds });
  if (!(lowVolts > 0 && highVolts > lowVolts && volts > highVolts))
    throw new RangeError(`thresholds ${lowVolts} and ${highVolts}: expected low below high, both between 0 and ${volts} V`);
  const contactAmps = volts / (seriesOhms * (1 - tolerance));
  const pressed = (volts * seriesOhms * (1 + tolerance)) / (seriesOhms * (1 + tolerance) + pullOhms * (1 - tolerance));
  const low = formatSi(pressed, 'V');
  const divider = {
    formula: 'Vpressed = V · Rs / (Rs + Rp)',
    values: `${formatSi(volts, 'V')} · ${formatSi(seriesOhms, 'Ω')} / (${formatSi(seriesOhms, 'Ω')} + ${formatSi(pullOhms, 'Ω')}), worst case ${low}`,
    source: CIRCUIT_THEORY,
  };
  const contact = {
    formula: 'I = V / Rs, worst case',
    values: `${formatSi(volts, 'V')} / ${formatSi(seriesOhms * (1 - tolerance), 'Ω')} = ${formatSi(contactAmps, 'A')}`,
    source: CIRCUIT_THEORY,
  };
  const none = { exactFarads: undefined, farads: undefined, pressSeconds: undefined, releaseSeconds: undefined, contactAmps };
  if (pressed >= lowVolts) return { ...none, verdict: 'never-low', working: [divider, contact] };
  const factor = Math.log((volts - pressed) / (volts - lowVolts));
  const exact = bounceSeconds / (pullOhms * (1 - tolerance) * factor);
  const working = [
    divider,
    contact,
    {
      formula: 'C = t / (Rp · ln((V − Vpressed) / (V − VIL)))',
      values: `${formatSi(bounceSeconds, 's')} / (${formatSi(pullOhms * (1 - tolerance), 'Ω')} · ${Number(factor.toPrecision(3))}) = ${formatSi(exact, 'F')}`,
      source: INPUT_SHEET,
    },
  ];
  const farads = values.find((value) => value * (1 - faradTolerance) >= exact * (1 - 1e-9));
  if (farads === undefined) return { ...none, exactFarads: exact, verdict: 'no-value', working };
  const most = farads * (1 + faradTolerance);
  const releaseSeconds = pullOhms * (1 + tolerance) * most * Math.log(volts / (volts - highVolts));
  const both = ((seriesOhms * pullOhms) / (seriesOhms + pullOhms)) * (1 + tolerance);
  const pressSeconds = both * most * Math.log((volts - pressed) / (lowVolts - pressed));
  const slow = Math.max(releaseSeconds, pressSeconds) > SLOW_SECONDS;
  return {
    exactFarads: exact,
    farads,
    pressSeconds,
    releaseSeconds,
    contactAmps,
    verdict: slow ? 'slow' : 'good',
    working: [...working, ...timesWorking(input, { exact, farads, most, both, pressed, pressSeconds, releaseSeconds })],
  };
}
