import { lastOrThrow } from '../collections/orThrow';
import { nameOf } from './memberName';
import { listText, placementText, terminalText } from './names';
import type { LineKind, LineNote } from '../electrics/reports/otherLines';
import type { SpiClock, SpiRow, SpiReport } from '../electrics/reports/spiReport';
import { wireEndText } from './wireEndText';
import type { Plan } from '../plan/plan';
import { formatSi } from '../quantity/format';
import type { Sheets } from '../sheets/sheetIndex';

export const LINE_TEXT: { readonly [K in LineKind]: string } = {
  uart: 'Serial',
  'one-wire': '1-Wire',
  'own-protocol': 'Dedicated lines',
  encoder: 'Rotary encoder',
  'key-matrix': 'Key matrix',
};

/** A note about lines as a sentence. */
export function noteText(plan: Plan, note: LineNote): string {
  switch (note.note) {
    case 'protocol':
      return note.text;
    case 'crossing': {
      const ways = [...(note.sends ? [`board TX to ${note.sends}`] : []), ...(note.hears ? [`board RX from ${note.hears}`] : [])];
      return `TX and RX cross: ${ways.join(', ')}. One device per port.`;
    }
    case 'console':
      return `Also on these pins: ${note.text}.`;
    case 'one-wire':
      return [
        note.pulled
          ? 'Pull-up resistor present.'
          : `No pull-up resistor${note.ohms === undefined ? '' : `: add ${formatSi(note.ohms, 'Ω')} for all devices together`}.`,
        'Above 10 m of wire use half the resistance.',
        note.parasitic.length > 0
          ? `${listText(note.parasitic.map((id) => placementText(plan, id)))} is parasite-powered: apply a strong pull-up during conversion.`
          : '',
      ]
        .filter(Boolean)
        .join(' ');
    case 'encoder':
      return `${note.interrupts} of 2 phases on interrupt pins. Contact bounce up to ${note.bounceMilliseconds} ms: debounce in software, or add 10 nF from each phase to ground.`;
    case 'matrix':
      return note.diodes
        ? `${note.keys} keys with diodes: any combination is read correctly.`
        : `${note.keys} keys without diodes: two at a time are read correctly, three can cause a ghost key.`;
    case 'shared-clock':
      return `Clock shared with ${listText([...new Set(note.with)].map((id) => placementText(plan, id)))}; separate data lines.`;
    case 'pull':
      return `${formatSi(note.ohms, 'Ω')} from ${note.terminal} to ${note.to === 'supply' ? 'the supply' : 'ground'}.`;
    case 'through':
      return `${listText(note.terminals)} through ${note.text}.`;
    case 'terminal':
      return `${listText(note.terminals)}: ${note.text}`;
  }
}

const BY: { readonly [K in SpiClock['by']]: string } = {
  part: 'the part',
  controller: 'the controller',
  program: 'the program',
  shifter: 'the level shifter',
  wire: 'the wire',
  set: 'the setting',
};

/** A part, or the further chip of it that a row is about. */
export const spiRowText = (plan: Plan, { head, further }: SpiRow): string =>
  further ? `${nameOf(plan, head)}, ${further.chip}` : nameOf(plan, head);

/** @example clockText({ hz: 20e6, by: 'wire' }) // '20 MHz, limited by the wire' */
export const clockText = (clock: SpiClock | undefined): string =>
  clock ? `${formatSi(clock.hz, 'Hz')}, limited by ${BY[clock.by]}` : 'none';

/** The select of a row: where it is, and what holds it. */
export function selectText(plan: Plan, sheets: Sheets, { select, held, latches }: SpiRow): string {
  if (!select) return 'none';
  if (!select.wire) return 'not connected';
  const pull = plan.pulls[select.key];
  const holding = pull ? `, pull-up ${formatSi(pull.ohms, 'Ω')}` : held ? ', pull-up on the module' : '';
  return `${wireEndText(plan, sheets, select.wire.end)}${holding}${latches ? ', latches on the rising edge' : ''}`;
}

/** Notes on an SPI bus as a whole, one sentence each. */
export function spiAdvice(plan: Plan, sheets: Sheets, { rows, commonMode, cardShares }: SpiReport): readonly string[] {
  const name = (id: string) => placementText(plan, id);
  const known = rows.filter((row) => row.modes.length > 0);
  const modes =
    known.length === 0
      ? []
      : [
          commonMode === undefined
            ? `No common mode: ${known.map((row) => `${name(row.head)} ${row.modes.join(' or ')}`).join(', ')}. The program must set the mode before each transfer.`
            : `Mode ${commonMode} for all devices.`,
        ];
  const card =
    cardShares === undefined
      ? []
      : [`Initialise ${name(cardShares)} first, at 400 kHz or less with every other CS high; then use its full clock.`];
  return [
    ...modes,
    ...card,
    ...rows.filter((row) => row.holdsDataOut && rows.length > 1).map((row) => `${name(row.head)} keeps driving MISO when deselected.`),
    ...rows
      .filter((row) => row.halfDuplex)
      .map((row) => `${name(row.head)} uses one bidirectional data line: connect it to MISO, and through about 1 kΩ to MOSI.`),
    ...rows
      .filter((row) => row.chain.length > 1)
      .map(
        (row) =>
          `Daisy chain: board → ${row.chain.map(name).join(' → ')}.${row.chainBits === undefined ? '' : ` ${row.chainBits} bits per transfer; the first bits end up in ${name(lastOrThrow(row.chain))}.`}`,
      ),
    ...rows.flatMap((row) => (row.select && !row.select.wire ? [`${terminalText(plan, sheets, row.select.key)} is not connected.`] : [])),
  ];
}

/** @example rateWords(8.13, 'frame') // '8.13 fps' */
export function rateText(perSecond: number | undefined, what: SpiRow['what']): string {
  if (perSecond === undefined || !Number.isFinite(perSecond)) return 'unknown';
  const rounded = Number(perSecond.toPrecision(3));
  return what === 'frame' ? `${rounded} fps` : `${rounded} ${what === 'text' ? 'texts' : 'readings'} per second`;
}
