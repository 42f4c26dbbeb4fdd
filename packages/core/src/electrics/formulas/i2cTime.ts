import { formatSi } from '../../quantity/format';
import type { Step, Worked } from './working';

/** A transfer as the program does it: bytes written and read after the address, so many times for one access. */
export interface Transfer {
  readonly times: number;
  readonly write: number;
  readonly read: number;
}

/** Bits of one transfer: START, nine bits a byte with the address byte among them, a repeated START before reading, STOP.
 *  @example transferBits({ times: 1, write: 17, read: 0 }) // 164: control byte and 16 bytes of picture */
export function transferBits({ write, read }: Omit<Transfer, 'times'>): number {
  const writing = write > 0 || read === 0 ? 9 * (1 + write) : 0;
  const reading = read > 0 ? 9 * (1 + read) : 0;
  const starts = 1 + (writing > 0 && reading > 0 ? 1 : 0);
  return starts + writing + reading + 1;
}

/** Bits of one access. */
export const accessBits = (transfers: readonly Transfer[]): number => transfers.reduce((sum, t) => sum + t.times * transferBits(t), 0);

export interface BusUser {
  readonly id: string;
  readonly transfers: readonly Transfer[];
  readonly perSecond: number;
  /** Most that the part holds the clock low in one access. */
  readonly stretchSeconds?: number;
}

export interface BusTime {
  readonly hz: number;
  /** Utilisation by each device, and the maximum rate for each alone. */
  readonly users: readonly {
    readonly id: string;
    readonly bits: number;
    /** Time of one access. */
    readonly seconds: number;
    readonly perSecond: number;
    readonly share: number;
    readonly alonePerSecond: number;
  }[];
  readonly share: number;
  /** The longest that a member waits for one access of another, in seconds. */
  readonly longestSeconds: number;
}

/** A second of an I2C bus.
 *  @throws RangeError when the clock is not above zero */
export function busTime(hz: number, users: readonly BusUser[]): Worked<BusTime> {
  if (!(hz > 0)) throw new RangeError(`Invalid clock ${hz}: expected hertz above zero`);
  const each = users.map(({ id, transfers, perSecond, stretchSeconds = 0 }) => {
    const bits = accessBits(transfers);
    const seconds = bits / hz + stretchSeconds;
    return { id, bits, seconds, perSecond, share: seconds * perSecond, alonePerSecond: seconds > 0 ? 1 / seconds : Infinity };
  });
  const longest = users.flatMap((u) => u.transfers.map((t) => transferBits(t) / hz + (u.stretchSeconds ?? 0)));
  return {
    hz,
    users: each,
    share: each.reduce((sum, u) => sum + u.share, 0),
    longestSeconds: longest.length > 0 ? Math.max(...longest) : 0,
    // The working is made on demand.
    get working() {
      return workingOf(hz, users);
    },
  };
}

/** What one transfer is made of. */
export const I2C_FRAMES = 'I2C-bus specification UM10204, 3.1: START, nine bits per byte, STOP';

const workingOf = (hz: number, users: readonly BusUser[]): readonly Step[] => [
  {
    formula: 'share = Σ (bits / clock + stretching) · rate',
    values:
      users
        .map(
          (u) =>
            `(${accessBits(u.transfers)} / ${formatSi(hz, 'Hz')}${u.stretchSeconds ? ` + ${formatSi(u.stretchSeconds, 's')}` : ''}) · ${formatSi(u.perSecond, 'Hz')}`,
        )
        .join(' + ') || '0',
    source: I2C_FRAMES,
  },
];
