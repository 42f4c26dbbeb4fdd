import { atOrThrow } from '../collections/orThrow';
/** How a scan result was written. */
export type ScanForm = 'grid' | 'hex' | 'decimal' | 'bare-hex';

export interface Scan {
  /** 7-bit addresses that answered, rising, each once. */
  readonly addresses: readonly number[];
  /** Addresses in use by a kernel driver: present, but not scanned. */
  readonly held: readonly number[];
  readonly form: ScanForm;
  /** They were written as 8-bit addresses, twice as large. */
  readonly eightBit: boolean;
  /** The first few words that are not addresses, as typed. */
  readonly unread: readonly string[];
}

export type ScanRead = { readonly ok: true; readonly scan: Scan } | { readonly ok: false; readonly fault: string };

/** Longer texts are no scan results. */
export const SCAN_LENGTH = 20_000;
const UNREAD_SHOWN = 5;
/** Addresses that parts may have; the others have a meaning of their own (UM10204, 3.1.12). */
const LEAST = 0x08;
const MOST = 0x77;

const GRID_ROW = /^\s*([0-7])0:\s*(.*)$/;

/** The rows of a grid: sixteen cells each, the first and the last row may be shorter. */
function readGrid(lines: readonly string[]): { readonly found: number[]; readonly held: number[]; readonly unread: string[] } | undefined {
  const rows = lines.flatMap((line) => {
    const match = GRID_ROW.exec(line);
    return match ? [{ base: parseInt(atOrThrow(match, 1), 16) * 16, cells: atOrThrow(match, 2).trim().split(/\s+/).filter(Boolean) }] : [];
  });
  if (rows.length < 2) return undefined;
  const found: number[] = [];
  const held: number[] = [];
  const unread: string[] = [];
  for (const { base, cells } of rows) {
    // The first row begins where asking begins: its cells end with its end.
    const first = base === 0 ? 16 - cells.length : 0;
    cells.forEach((cell, at) => {
      const address = base + first + at;
      if (/^[-.·x]+$/i.test(cell)) return;
      if (/^u+$/i.test(cell)) held.push(address);
      else if (/^[0-9a-f]{2}$/i.test(cell)) found.push(parseInt(cell, 16));
      else unread.push(cell);
    });
  }
  return { found, held, unread };
}

const numbersIn = (text: string, pattern: RegExp, base: number): readonly number[] =>
  [...text.matchAll(pattern)].map((match) => parseInt(atOrThrow(match, 1), base));

/** The content of the first pair of brackets. */
function bracketed(text: string): string | undefined {
  const close = text.indexOf(']');
  const open = text.lastIndexOf('[', close);
  return close < 0 || open < 0 ? undefined : text.slice(open + 1, close);
}

/** Addresses of a text that is no grid, in the first form that it has any in. */
function readLoose(text: string): { readonly found: readonly number[]; readonly form: ScanForm; readonly unread: readonly string[] } {
  const hex = numbersIn(text, /\b0x([0-9a-f]{1,2})\b/gi, 16);
  if (hex.length > 0) return { found: hex, form: 'hex', unread: [...text.matchAll(/\b0x(?:[0-9a-f]{3,}|[g-z]\w*)\b/gi)].map((m) => m[0]) };
  // Words with a number in them say how many there are, or which bus it is: numbers of a list, or after "address", are addresses.
  const listed = bracketed(text);
  const named = numbersIn(text, /address(?:es)?\D{0,6}(\d{1,3})\b/gi, 10);
  const bare = text.trim();
  const list = listed ?? (/^[\d\s,;]+$/.test(bare) ? bare : undefined);
  if (list !== undefined && /\d/.test(list))
    return { found: numbersIn(list, /\b(\d{1,3})\b/g, 10), form: 'decimal', unread: [...list.matchAll(/\b\d{4,}\b/g)].map((m) => m[0]) };
  if (named.length > 0) return { found: named, form: 'decimal', unread: [] };
  if (/^[0-9a-f\s,;]+$/i.test(bare)) return { found: numbersIn(bare, /\b([0-9a-f]{2})\b/gi, 16), form: 'bare-hex', unread: [] };
  return { found: [], form: 'hex', unread: [] };
}

/** A scan result as people paste it: a grid of hexadecimal rows, lines with 0x.., a list in brackets, decimal numbers. Addresses above 0x77
 *  are taken for 8-bit ones, twice as large, and with them all others.
 *  @example readScan('I2C device found at 0x3C') // addresses: [0x3c] */
export function readScan(text: string): ScanRead {
  if (text.length > SCAN_LENGTH)
    return {
      ok: false,
      fault: `The text has ${text.length} characters, the limit is ${SCAN_LENGTH}. Paste only the lines with addresses.`,
    };
  if (text.trim() === '') return { ok: false, fault: 'Nothing to read yet.' };
  const grid = readGrid(text.split(/\r?\n/));
  const read = grid ? { ...grid, form: 'grid' as const } : { ...readLoose(text), held: [] };
  const all = read.found;
  const isEight = all.some((address) => address > MOST) && all.every((address) => address <= 0xef);
  const seven = isEight ? all.map((address) => address >> 1) : all;
  const addresses = [...new Set(seven)].filter((address) => address >= LEAST && address <= MOST).sort((a, b) => a - b);
  const outside = all
    .filter((_, at) => atOrThrow(seven, at) < LEAST || atOrThrow(seven, at) > MOST)
    .map((address) => `0x${address.toString(16).toUpperCase()}`);
  const nothing = /\bno\b.{0,20}(?:device|found)|\bnone\b|\[\s*\]|\b0 devices?\b/i.test(text);
  if (addresses.length === 0 && !grid && !nothing)
    return {
      ok: false,
      fault: 'No addresses found in this text. Accepted: a grid of rows such as “30: -- 3c”, lines with 0x3C, or a list such as [60, 104].',
    };
  return {
    ok: true,
    scan: {
      addresses,
      held: read.held,
      form: read.form,
      eightBit: isEight,
      unread: [...read.unread, ...outside].slice(0, UNREAD_SHOWN),
    },
  };
}
