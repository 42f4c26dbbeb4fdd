/** A netlist and the components, read from the printed text of a build sheet and nothing else. Terminals are `name label#module pin`,
 *  board positions `header#position`, rails off the headers and the rails of a breadboard `rail label`. */
export interface PrintedCircuit {
  readonly nets: Nets;
  /** "name: value, legs", value in ohms, farads or hertz; of a chip's own circuit its board positions. */
  readonly components: readonly string[];
  /** Lines that say nothing that could be read. */
  readonly unread: readonly string[];
}

/** What is connected to what. */
export class Nets {
  readonly #parent = new Map<string, string>();

  find(node: string): string {
    const above = this.#parent.get(node);
    if (above === undefined) this.#parent.set(node, node);
    return above === undefined || above === node ? node : this.find(above);
  }

  join(a: string, b: string): void {
    this.#parent.set(this.find(a), this.find(b));
  }

  /** The nets as sorted groups of the nodes that pass, singles left out. */
  groups(passes: (node: string) => boolean = () => true): readonly string[] {
    const byRoot = new Map<string, string[]>();
    for (const node of this.#parent.keys()) if (passes(node)) byRoot.set(this.find(node), [...(byRoot.get(this.find(node)) ?? []), node]);
    return [...byRoot.values()].flatMap((nodes) => (nodes.length > 1 ? [nodes.toSorted().join(' = ')] : [])).toSorted();
  }

  readonly nodes = (): readonly string[] => [...this.#parent.keys()];
}

const PREFIX: { readonly [p: string]: number } = { p: 1e-12, n: 1e-9, µ: 1e-6, m: 1e-3, k: 1e3, M: 1e6 };

/** @example readValue('4.7 kΩ (yellow, violet, red, gold; 4K7)') // 4700 */
function readValue(text: string): number | undefined {
  const found = /([\d.]+)\s*([pnµmkM]?)(?:Ω|F|Hz)/u.exec(text.replaceAll('\u00a0', ' '));
  return found ? Number((Number(found[1]) * (PREFIX[found[2]!] ?? 1)).toPrecision(6)) : undefined;
}

/** The positions of "left edge, position 4, 4th from …; or right edge, …", or of "any GND (left edge 3, 8; right edge 13)". */
function readPositions(where: string): readonly string[] {
  const any = /any (?:GND \((.*)\)|of (.*))$/u.exec(where);
  if (any)
    return (any[1] ?? any[2]!).split('; ').flatMap((one) => {
      const found = /^(.*?) (\d+(?:, \d+)*)$/u.exec(one);
      return found ? found[2]!.split(', ').map((n) => `${found[1]}#${n}`) : [];
    });
  return where.split('; or ').flatMap((one) => {
    const found = /^(.*?)(?:, (?:left|right|inside) side)?, (?:position|pin) (\d+),/u.exec(one);
    return found ? [`${found[1]}#${found[2]}`] : [];
  });
}

const SAFE = new Set(['Before you begin', 'First power-up', 'Board settings', 'Jumpers and straps', 'Unconnected and external terminals']);

/** Reads a printed build sheet.
 *  @param text as copied: section, item, step, position and mark, separated by tabs */
export function readBuildSheet(text: string): PrintedCircuit {
  const nets = new Nets();
  const components: string[] = [];
  const unread: string[] = [];
  for (const line of text.split('\n').slice(1)) {
    const [section, item, step, detail] = line.split('\t') as [string, string, string, string];
    if (SAFE.has(section) || section === 'Open error') continue;
    const wire = /^\S+ wire to (.*?)(?: \(locked\))?(?:, through .*)?$/u.exec(step);
    if (section === 'Junctions') {
      const module = /^1 module pin: at module pin (\d+)$/u.exec(detail);
      const at = module ? [`${item}#${module[1]}`] : readPositions(detail.replace(/^\d+ board positions?: /u, ''));
      if (at.length === 0) unread.push(line);
      for (const one of at) nets.join(`junction ${item}`, one);
    } else if (wire) readWire(nets, item, wire[1]!, detail, () => unread.push(line));
    else if (section === 'Chip circuit') {
      const ends = [...step.matchAll(/\(([^()]*), position (\d+)\)/gu)].map(([, header, n]) => `${header}#${n}`);
      if (ends.length === 0) unread.push(line);
      const rail = /to (?:the ground|a supply) rail/u.test(step);
      if (rail) for (const one of ends) nets.join(one, `rail ${item}`);
      else if (/between/u.test(step)) components.push(`${item}: ${ends.join(' and ')} ${readValue(step)}`);
    } else {
      const added = readComponent(step);
      if (added !== undefined) components.push(`${item}: ${added}`);
      else if (!/^(?:disconnect its|tie) /u.test(step)) unread.push(line);
    }
  }
  return { nets, components, unread };
}

/** A component leg by leg: what it is, its value, and what each leg is at, as printed. */
function readComponent(step: string): string | undefined {
  const two = /^(?:resistor )?([\d.].*?) (?:capacitor |electrolytic capacitor, plus leg first, )?between (.*)$/u.exec(step);
  if (two) return `${readValue(two[1]!)}, ${two[2]}`;
  const trimmer = /^([\d.].*?) trimmer: outer legs to (.*), wiper to (.*)$/u.exec(step);
  if (trimmer) return `${readValue(trimmer[1]!)}, ${trimmer[2]} wiper ${trimmer[3]}`;
  const diode = /^flyback diode: cathode, the end with the ring, to (.*), anode to (.*)$/u.exec(step);
  if (diode) return `diode, cathode ${diode[1]}, anode ${diode[2]}`;
  const transistor = /^(NPN transistor|PNP transistor|N-MOSFET|P-MOSFET): (.*)$/u.exec(step);
  return transistor ? `${transistor[1]}, ${transistor[2]}` : undefined;
}

function readWire(nets: Nets, item: string, to: string, detail: string, fail: () => void): void {
  const own = /^module pin (\d+) · (.*?)(?: · moved since.*)?$/u.exec(detail);
  if (!own) return fail();
  const [, number, where] = own as unknown as [string, string, string];
  const from = `${item}#${number}`;
  // The step of the junction says where it leads to.
  if (where === 'at the junction') return nets.join(from, `junction ${to}`);
  const other = /^at module pin (\d+)$/u.exec(where);
  if (other) return nets.join(from, `${to}#${other[1]}`);
  // The wiper or the middle of a divider is a net of its own; the legs of its components are read with them.
  if (where === 'on the breadboard') return nets.join(from, to);
  if (where.endsWith('rail of the breadboard') || /^(?:rail )?not on a board header$/u.test(where)) return nets.join(from, `rail ${to}`);
  const positions = readPositions(where);
  if (positions.length === 0) return fail();
  for (const one of positions) nets.join(from, one);
}
