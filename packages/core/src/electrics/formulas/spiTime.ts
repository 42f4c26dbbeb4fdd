import { formatSi, plain } from '../../quantity/format';
import type { Transfer } from './i2cTime';
import type { Worked } from './working';
import { SPI_GUIDE } from './documents';

/** Bits of one access on an SPI bus: eight a byte, written and read; what is read while writing is counted once by the sheet.
 *  @example spiBits([{ times: 8, write: 2, read: 0 }]) // 128 */
export const spiBits = (transfers: readonly Transfer[]): number => transfers.reduce((sum, t) => sum + t.times * 8 * (t.write + t.read), 0);

export interface SpiTime {
  readonly bits: number;
  /** Time of one access. */
  readonly seconds: number;
  readonly share: number;
  readonly mostPerSecond: number;
}

/** The bus utilisation of an access at a clock.
 *  @param bits of one access: for a chain those of all its parts, n · bits
 *  @throws RangeError when the clock is not above zero */
export function spiTime(hz: number, bits: number, perSecond: number): Worked<SpiTime> {
  if (!(hz > 0)) throw new RangeError(`Invalid clock ${hz}: expected hertz above zero`);
  return {
    bits,
    seconds: bits / hz,
    share: (bits * perSecond) / hz,
    mostPerSecond: bits > 0 ? hz / bits : Infinity,
    working: [
      {
        formula: 't = bits / clock; share = t · rate; rate ≤ clock / bits',
        values: `${bits} / ${formatSi(hz, 'Hz')} = ${formatSi(bits / hz, 's')}; · ${formatSi(perSecond, 'Hz')} = ${plain((bits * perSecond) / hz)}${bits > 0 ? `; ${plain(hz / bits)} per second` : ''}`,
        source: SPI_GUIDE,
      },
    ],
  };
}
