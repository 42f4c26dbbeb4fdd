import type { PlanContext } from '../../plan/planContext';
import type { Source } from '../../sheets/source';
import type { SheetRef } from '../../sheets/sheetIndex';
import type { Bus } from '../../nets/buses';
import type { Nets } from '../../nets/nets';
import type { PlanTerminal } from '../../nets/terminals';
import type { Edit } from '../../plan/edit';
import type { TerminalKey } from '../../plan/plan';

/** clash (error): does not work, or causes damage. risk (warning): outside a limit or without margin. hint (note): works, could be
 *  better. */
export const LEVELS = ['clash', 'risk', 'hint'] as const;
export type Level = (typeof LEVELS)[number];

/** A value in a message: an id or a number with its kind, turned into words at the edge. */
export type Datum =
  | { readonly is: 'terminal'; readonly key: TerminalKey }
  | { readonly is: 'terminals'; readonly keys: readonly TerminalKey[] }
  /** Terminals of a part that the text names already, by their labels alone. */
  | { readonly is: 'labels'; readonly keys: readonly TerminalKey[] }
  | { readonly is: 'pin'; readonly pin: string }
  | { readonly is: 'pins'; readonly pins: readonly string[] }
  | { readonly is: 'placement'; readonly id: string }
  | { readonly is: 'placements'; readonly ids: readonly string[] }
  /** A bus member: a placement, `board`, or unknown. */
  | { readonly is: 'member'; readonly id: string | undefined }
  | { readonly is: 'controller'; readonly id: string }
  | { readonly is: 'rail'; readonly rail: string }
  | { readonly is: 'address'; readonly value: number }
  | { readonly is: 'addresses'; readonly values: readonly number[] }
  | { readonly is: 'volts'; readonly value: number }
  | { readonly is: 'quantity'; readonly value: number; readonly unit: 'Ω' | 'A' | 'W' | 'F' | 'Hz' | 's' | 'B' }
  /** A share of one, as per cent. */
  | { readonly is: 'share'; readonly value: number }
  /** A bus by its controller, and its segment behind a level shifter or a channel. */
  | { readonly is: 'segment'; readonly controller: string; readonly behind?: string; readonly channel?: number }
  | { readonly is: 'count'; readonly value: number; readonly noun?: string }
  /** Groups of facts (`supply`), sheet by sheet. */
  | { readonly is: 'facts'; readonly of: readonly { readonly sheet: SheetRef; readonly groups: readonly string[] }[] }
  /** Parts of the catalogue by their titles; the same one several times is counted. */
  | { readonly is: 'parts'; readonly ids: readonly string[] }
  /** Text of a sheet. */
  | { readonly is: 'words'; readonly text: string };

export type Data = { readonly [name: string]: Datum };

/** Where a finding is, by ids that stay while the things do. */
export interface Place {
  readonly terminals?: readonly TerminalKey[];
  readonly pins?: readonly string[];
  readonly placements?: readonly string[];
  /** The controller of the bus whose sheet shows it best. */
  readonly bus?: string;
  readonly rails?: readonly string[];
  /** The channel of a multiplexer: two of one part are two places. */
  readonly channel?: number;
  /** The check that failed, where that is what the finding is about. */
  readonly check?: string;
  /** The view that shows it best, where that is not the Chart or a bus. */
  readonly view?: 'levels' | 'resistors' | 'supply' | 'readout';
}

export interface Remedy {
  /** Key of the check's `remedies` texts. */
  readonly label: string;
  readonly data: Data;
  /** Safe remedies may be run in bulk; offered ones change what the plan means and are taken one at a time. */
  readonly grade: 'safe' | 'offered';
  readonly edits: readonly Edit[];
}

export interface FindingDraft {
  readonly level: Level;
  /** Key of the check's `messages`. */
  readonly message: string;
  readonly place: Place;
  readonly data: Data;
  readonly source?: Source;
  /** Computed on demand: most findings of trials, such as adding a part, are only counted. */
  remedies(): readonly Remedy[];
}

export interface Finding extends Omit<FindingDraft, 'remedies'> {
  /** Worked out when first read, and then kept. */
  readonly remedies: readonly Remedy[];
  readonly code: string;
  /** Stable while the trouble is the same: code, message and place. */
  readonly id: string;
  /** The user's reason for accepting it, if accepted. An error is not: a warning that was accepted and has become one is open again. */
  readonly accepted?: string;
  /** The reason for which an error was accepted while it was a warning. */
  readonly acceptedBefore?: string;
  /** `facts`: about the sheets, not about the plan. */
  readonly about?: 'facts';
}

/** Whether a finding is about the sheets, not about the plan. */
export const isAboutFacts = ({ about }: Pick<Finding, 'about'>): boolean => about === 'facts';

export interface Message {
  readonly title: string;
  readonly text: string;
  readonly why: string;
}

/** All a check may look at. */
export interface CheckContext extends PlanContext {
  readonly nets: Nets;
  readonly buses: readonly Bus[];
  readonly terminals: readonly PlanTerminal[];
}

/** A check is a value: facts and texts first, then the function that looks. */
export interface Check {
  readonly code: string;
  /** The question it answers, for its page and for the list of what is checked. */
  readonly question: string;
  /** `facts`: the finding is about the sheets, not about the plan, and does not count when a part is added. */
  readonly about?: 'facts';
  /** It adds up or compares what parts have in common that do not meet by any signal: currents, memory, timers. All other checks look at
   *  each component of the plan on its own. */
  readonly planWide?: true;
  /** What it finds damages something, or sets two things against each other: no fix of another check may bring it. */
  readonly harm?: true;
  /** What the plan lacks is a resistor, a level shifter or a setting of the program, which is at hand: no reason to say that a part does not fit. */
  readonly missing?: 'resistor' | 'shifter' | 'setting';
  readonly messages: { readonly [id: string]: Message };
  readonly remedies: { readonly [id: string]: string };
  /** What to do where no change of the plan helps: at the bench, or in the program. */
  readonly otherwise?: string;
  examine(context: CheckContext): readonly FindingDraft[];
}
