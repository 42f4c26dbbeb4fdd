import { sayList, sayPlacement, sayTerminal } from '@roof-chart/core/checks/say';
import type { LineKind, LineNote } from '@roof-chart/core/electrics/otherLines';
import type { SpiClock, SpiRow, SpiSheet } from '@roof-chart/core/electrics/spiBus';
import { endWords } from '../../app/editWords';
import type { Plan } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';

export const LINE_WORDS: { readonly [K in LineKind]: string } = {
  uart: 'Serial',
  'one-wire': '1-Wire',
  'own-protocol': 'Lines of its own',
  encoder: 'Rotary encoder',
  'key-matrix': 'Keys in rows and columns',
};

/** A note about lines as a sentence. */
export function noteWords(plan: Plan, note: LineNote): string {
  switch (note.note) {
    case 'protocol':
      return note.text;
    case 'crossing': {
      const ways = [
        ...(note.sends ? [`what the board sends goes to ${note.sends}`] : []),
        ...(note.hears ? [`what the part sends comes from ${note.hears}`] : []),
      ];
      return `The two lines cross: ${ways.join(', ')}. One part on a port.`;
    }
    case 'console':
      return `These pins are also: ${note.text}.`;
    case 'one-wire':
      return [
        note.pulled
          ? 'A resistor pulls the line up.'
          : `No resistor pulls the line up${note.ohms === undefined ? '' : `: add ${formatSi(note.ohms, 'Ω')} for all parts together`}.`,
        'Over 10 m of wire take half the resistance.',
        note.parasitic.length > 0
          ? `${sayList(note.parasitic.map((id) => sayPlacement(plan, id)))} lives from the line: while it measures, the line must be held high.`
          : '',
      ]
        .filter(Boolean)
        .join(' ');
    case 'encoder':
      return `${note.interrupts} of its 2 phases are on pins with an interrupt. Contacts bounce for up to ${note.bounceMilliseconds} ms: look again after that, or put 10 nF from each phase to ground.`;
    case 'matrix':
      return note.diodes
        ? `${note.keys} keys with a diode each: any number at once is told apart.`
        : `${note.keys} keys without diodes: two at once are told apart, three can look like four.`;
    case 'shared-clock':
      return `One clock for this and ${sayList([...new Set(note.with)].map((id) => sayPlacement(plan, id)))}; the data lines tell them apart.`;
    case 'pull':
      return `${formatSi(note.ohms, 'Ω')} from ${note.terminal} to ${note.to === 'supply' ? 'the supply' : 'ground'}.`;
    case 'through':
      return `${sayList(note.terminals)} through ${note.text}.`;
    case 'terminal':
      return `${sayList(note.terminals)}: ${note.text}`;
  }
}

const BY: { readonly [K in SpiClock['by']]: string } = {
  part: 'the part',
  controller: 'the controller',
  shifter: 'the level shifter',
  wire: 'the wire',
  set: 'your setting',
};

/** @example clockWords({ hz: 20e6, by: 'wire' }) // '20 MHz, by the wire' */
export const clockWords = (clock: SpiClock | undefined): string => (clock ? `${formatSi(clock.hz, 'Hz')}, by ${BY[clock.by]}` : 'none');

/** The select of a row: where it is, and what holds it. */
export function selectWords(plan: Plan, sheets: Sheets, { select, held, latches }: SpiRow): string {
  if (!select) return 'none';
  if (!select.wire) return 'not wired';
  const pull = plan.pulls[select.key];
  const holding = pull ? `, held by ${formatSi(pull.ohms, 'Ω')}` : held ? ', held on the module' : '';
  return `${endWords(plan, sheets, select.wire.end)}${holding}${latches ? ', takes over as it rises' : ''}`;
}

/** What to know about an SPI bus as a whole, one sentence each. */
export function spiAdvice(plan: Plan, sheets: Sheets, { rows, commonMode, cardShares }: SpiSheet): readonly string[] {
  const name = (id: string) => sayPlacement(plan, id);
  const known = rows.filter((row) => row.modes.length > 0);
  const modes =
    known.length === 0
      ? []
      : [
          commonMode === undefined
            ? `No one mode serves all: ${known.map((row) => `${name(row.head)} ${row.modes.join(' or ')}`).join(', ')}. The program sets it before each transfer.`
            : `Mode ${commonMode} serves all.`,
        ];
  const card =
    cardShares === undefined
      ? []
      : [`Start ${name(cardShares)} first, at 400 kHz at most and with every other select high; then take its full clock.`];
  return [
    ...modes,
    ...card,
    ...rows
      .filter((row) => row.holdsDataOut && rows.length > 1)
      .map((row) => `${name(row.head)} does not let go of the data line when it is not selected.`),
    ...rows
      .filter((row) => row.halfDuplex)
      .map(
        (row) =>
          `${name(row.head)} sends and hears on one line: wire it to the board’s data input, and through about 1 kΩ to its data output.`,
      ),
    ...rows
      .filter((row) => row.chain.length > 1)
      .map(
        (row) =>
          `Chain: board → ${row.chain.map(name).join(' → ')}.${row.chainBits === undefined ? '' : ` ${row.chainBits} bits in one go; what is sent first ends in ${name(row.chain.at(-1)!)}.`}`,
      ),
    ...rows.flatMap((row) => (row.select && !row.select.wire ? [`${sayTerminal(plan, sheets, row.select.key)} is not wired.`] : [])),
  ];
}

/** @example rateWords(8.13, 'frame') // '8.13 pictures a second' */
export function rateWords(perSecond: number | undefined, what: SpiRow['what']): string {
  if (perSecond === undefined || !Number.isFinite(perSecond)) return 'not known';
  const rounded = Number(perSecond.toPrecision(3));
  return `${rounded} ${what === 'frame' ? 'pictures' : what === 'text' ? 'texts' : 'readings'} a second`;
}
