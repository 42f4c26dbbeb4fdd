import { getOrThrow } from '../../collections/orThrow';
import { type Bus, findBuses, pinOfLine } from '../../nets/buses';
import { findNets } from '../../nets/nets';
import { planTerminals } from '../../nets/terminals';
import { usesPwm } from '../../assign/model/sharedResources';
import type { Plan, TerminalKey } from '../../plan/plan';
import type { EnabledFunction, Enabling } from '../../sheets/boardSheet';
import type { IndexedBoard, Sheets } from '../../sheets/sheetIndex';
import { busClock } from './busClock';
import { spiReport } from './spiReport';

/** How to enable one bus or other function in the operating system, with the pins, clock and chip selects of the plan. */
export interface Enabled {
  /** Stable while the pins are: a controller, or a function with its pins. */
  readonly id: string;
  readonly title: string;
  readonly controller: string | undefined;
  readonly pins: readonly string[];
  readonly words: string;
  /** Exact lines of the boot configuration. */
  readonly lines: readonly string[];
  /** Pins that these lines take while something else of the plan is on them. */
  readonly conflicts: readonly string[];
  /** What is on those pins. */
  readonly meets: readonly TerminalKey[];
}

/** The selects of an SPI bus, in the order of its parts. */
function selectsOf(plan: Plan, sheets: Sheets, board: IndexedBoard, bus: Bus): readonly string[] {
  if (bus.kind !== 'spi') return [];
  const nets = findNets(plan, sheets);
  const pins = spiReport(plan, sheets, board, bus).rows.flatMap(
    ({ select }) => (select && pinOfLine(plan, select.key, nets, sheets)) ?? [],
  );
  return [...new Set(pins)];
}

function fits(entry: Enabling, bus: Bus, selects: readonly string[], own: readonly string[]): boolean {
  if (entry.controller !== bus.controller) return false;
  if (Object.entries(entry.pins ?? {}).some(([line, pin]) => bus.pins[line] !== pin)) return false;
  if (entry.most !== undefined && selects.length > entry.most) return false;
  if (entry.selects === 'any-own') return selects.every((pin) => own.includes(pin));
  return entry.selects !== 'first-own' || selects.every((pin, at) => own[at] === pin);
}

/** The values of the placeholders of an entry. */
type Values = { readonly [name: string]: string };

const filled = (text: string, values: Values): string => text.replace(/\{(\w+)\}/g, (whole, name: string) => values[name] ?? whole);

/** Reads a plan for what its board’s operating system must be told. */
class Reader {
  private readonly list: readonly Enabling[];
  constructor(
    private readonly plan: Plan,
    private readonly sheets: Sheets,
    private readonly board: IndexedBoard,
  ) {
    this.list = board.sheet.enabling?.list ?? [];
  }

  all(): readonly Enabled[] {
    if (this.list.length === 0) return [];
    const buses = findBuses(this.plan, this.sheets);
    return [...buses.flatMap((bus, at) => this.bus(bus, at)), ...this.oneWire(), ...this.pwm()];
  }

  private number(pin: string | undefined): string {
    const port = pin === undefined ? '' : (this.board.pins.get(pin)?.port ?? pin);
    return /\d+$/.exec(port)?.[0] ?? port;
  }

  /** The first entry that takes no pin of something else; else the first, with what it meets. */
  private chosen(
    entries: readonly Enabling[],
    own: readonly string[],
    values: Values,
    made: Pick<Enabled, 'id' | 'title' | 'controller'>,
  ): readonly Enabled[] {
    const nets = findNets(this.plan, this.sheets);
    const conflictsOf = ({ claims = [] }: Enabling) => claims.filter((pin) => !own.includes(pin) && nets.byPin.has(pin));
    const entry = entries.find((one) => conflictsOf(one).length === 0) ?? entries[0];
    if (!entry) return [];
    const conflicts = conflictsOf(entry);
    return [
      {
        ...made,
        pins: own,
        words: filled(entry.words, values),
        lines: entry.lines.map((line) => filled(line, values)),
        conflicts,
        meets: conflicts.flatMap((pin) => getOrThrow(nets.byPin, pin).terminals.map(({ key }) => key)),
      },
    ];
  }

  private bus(bus: Bus, at: number): readonly Enabled[] {
    const controller = this.board.controllers.get(bus.controller ?? '');
    if (!controller) return [];
    const selects = selectsOf(this.plan, this.sheets, this.board, bus);
    const own = controller.legal.rule === 'sets' ? controller.legal.sets.flatMap((set) => set['cs'] ?? []) : [];
    const made: EnabledFunction | undefined = controller.software && bus.kind === 'i2c' ? 'softi2c' : undefined;
    const entries = this.list.filter((one) => (made ? one.controller === made : fits(one, bus, selects, own)));
    const values = {
      count: String(Math.max(1, selects.length)),
      selects: selects.map((pin, n) => `,cs${n}_pin=${this.number(pin)}`).join(''),
      no_miso: bus.pins['miso'] === undefined ? ',no_miso' : '',
      hz: bus.kind === 'i2c' ? String(Math.floor(busClock(this.plan, this.sheets, bus).hz)) : '',
      sda: this.number(bus.pins['sda']),
      scl: this.number(bus.pins['scl']),
      bus: String(10 + at),
    };
    return this.chosen(entries, [...Object.values(bus.pins), ...selects], values, {
      id: controller.id,
      title: controller.title,
      controller: controller.id,
    });
  }

  private pinsOf(accepts: (item: ReturnType<typeof planTerminals>[number]) => boolean): readonly string[] {
    const nets = findNets(this.plan, this.sheets);
    const pins = planTerminals(this.plan, this.sheets).flatMap((item) =>
      accepts(item) ? (nets.byTerminal.get(item.key)?.pins ?? []) : [],
    );
    return [...new Set(pins)];
  }

  private oneWire(): readonly Enabled[] {
    const entries = this.list.filter((one) => one.controller === 'onewire');
    return this.pinsOf(({ terminal }) => terminal.role === 'onewire.data').flatMap((pin) =>
      this.chosen(
        entries,
        [pin],
        { pin: this.number(pin) },
        {
          id: `onewire.${pin}`,
          title: `1-Wire on ${this.board.pins.get(pin)?.label ?? pin}`,
          controller: undefined,
        },
      ),
    );
  }

  private pwm(): readonly Enabled[] {
    const pins = this.pinsOf(usesPwm);
    const entries = this.list.filter(({ controller, pins: wanted = {} }) => {
      const listed = Object.values(wanted);
      return controller === 'pwm' && listed.length === pins.length && listed.every((pin) => pins.includes(pin));
    });
    return this.chosen(entries, pins, {}, { id: 'pwm', title: 'PWM', controller: undefined });
  }
}

/** How to enable each bus, 1-Wire line and PWM of a plan. Empty for boards without an operating system. */
export const enablingOf = (plan: Plan, sheets: Sheets, board: IndexedBoard): readonly Enabled[] => new Reader(plan, sheets, board).all();
