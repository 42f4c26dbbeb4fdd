import type { Range } from '../quantity/range';
import type { LevelFact } from './boardSheet';
import type { Role } from './roles';
import type { Sourced } from './source';

export const FAMILIES = ['display', 'sensor', 'input', 'light', 'output', 'storage', 'clock', 'helper'] as const;
export type Family = (typeof FAMILIES)[number];

export interface PartTerminal {
  readonly id: string;
  /** Place along the printed row, from 1. */
  readonly number: number;
  readonly label: string;
  readonly also?: readonly string[];
  readonly role: Role;
  /** Seen from the part. */
  readonly direction: 'in' | 'out' | 'both' | 'passive';
  readonly need: 'needed' | 'optional' | 'outside';
  /** Where the terminal may be tied instead of taking a pin. */
  readonly ties?: readonly ('ground' | 'supply')[];
  /** Special abilities the pin must have. */
  readonly requires?: readonly ('interrupt' | 'pwm')[];
  /** Abilities that help but are not needed. */
  readonly prefers?: readonly ('interrupt' | 'pwm')[];
  /** A component that must sit in this wire, in words. */
  readonly through?: string;
  readonly note?: string;
}

/** A choice made on the module: by wiring one of its terminals, or by a solder jumper. */
export interface Strap {
  readonly id: string;
  readonly by: 'terminal' | 'jumper';
  readonly terminal?: string;
  readonly states: readonly { readonly id: string; readonly words: string; readonly tie?: 'ground' | 'supply' }[];
  readonly default: string;
  /** Highest voltage that the strap terminal takes, in volts. */
  readonly maxVolts?: number;
}

export interface I2cDevice {
  readonly id: string;
  readonly chip: string;
  readonly how: 'fixed' | 'strap';
  /** Every selectable address with the strap states that select it (none where fixed). */
  readonly addresses: readonly { readonly address: number; readonly straps: { readonly [strap: string]: string } }[];
  readonly maxHz: number;
  readonly clockStretching: boolean | 'optional';
}

/** A part: every fact the product knows about it. */
export interface PartSheet {
  readonly kind: 'part';
  readonly schema: 1;
  readonly id: string;
  readonly version: number;
  readonly chip: string;
  readonly family: Family;
  readonly title: string;
  /** Name a placement gets at first. */
  readonly short: string;
  readonly summary: string;
  readonly size?: string;
  readonly words?: readonly string[];
  readonly terminals: Sourced & { readonly list: readonly PartTerminal[] };
  readonly bus: Sourced & {
    readonly kind: 'i2c' | 'spi' | 'uart' | 'private' | 'none';
    readonly protocol?: string;
    readonly straps?: readonly Strap[];
    readonly devices?: readonly I2cDevice[];
    readonly modes?: readonly number[];
    readonly maxWriteHz?: number;
    readonly maxReadHz?: number;
    readonly hasSelect?: boolean;
    readonly releasesDataOut?: boolean;
    readonly note?: string;
  };
  readonly supply?: Sourced & {
    readonly volts: Range;
    readonly typicalMilliamps: number;
    readonly peakMilliamps: number;
    readonly regulator: boolean;
    /** The supply sets the level of the part's outputs or pull-ups, so it must be the board's logic supply. */
    readonly mustMatchLogic?: boolean;
    readonly note?: string;
  };
  readonly levels?: Sourced & {
    readonly vihMin?: LevelFact;
    readonly vilMax?: LevelFact;
    readonly volMax?: { readonly volts: number; readonly atMilliamps: number };
    readonly logicVolts?: Range;
    readonly note?: string;
  };
  readonly module: Sourced & {
    readonly pullUps?: readonly {
      readonly terminals: readonly string[];
      readonly ohms: number;
      readonly to: 'supply' | 'regulated';
      readonly cut: 'jumper' | 'resistor';
    }[];
    readonly passives: readonly string[];
  };
  readonly memory?: Sourced & { readonly frameBufferBytes: number; readonly required: boolean; readonly format: string };
  readonly readout?: Sourced & {
    readonly columns: number;
    readonly rows: number;
    readonly unit: 'pixels' | 'characters' | 'digits';
    readonly shape: string;
  };
  readonly polarity?: Sourced & { readonly forwardVolts: Range; readonly maxMilliamps: number; readonly kind: string };
  readonly firstLight: Sourced & { readonly see: string; readonly causes: readonly string[] };
  readonly twins: readonly { readonly what: string; readonly tell: string }[];
  readonly unknown: readonly string[];
}
