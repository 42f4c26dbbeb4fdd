/** Small seeded generator (mulberry32), so that a failure can be run again. */
export function seededRandom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** What hostile and careless texts are made of: blanks and brackets in rows, half of a number, what a parser looks for. */
const PIECES = [
  ' ',
  '\t',
  '\n',
  '\r\n',
  '\u2028',
  '\uFEFF',
  '\u0000',
  '\u001b[31m',
  '\ud800',
  '\u202e',
  '"',
  "'",
  '`',
  '\\',
  '/',
  '//',
  '/*',
  '*/',
  '??/',
  '<b>',
  '{{',
  '$',
  '%',
  '[',
  ']',
  '[[',
  '(',
  ')',
  '{',
  '}',
  '|',
  '| - |',
  ',',
  ';',
  ':',
  '=',
  '->',
  '=>',
  '→',
  ' to ',
  '-',
  '+',
  '.',
  '..',
  '_',
  '0',
  '9',
  '99999',
  '1e9',
  '1e999',
  '0x',
  '0x3C',
  '0x78',
  '3c',
  '--',
  'UU',
  '30: -- 3c',
  'address',
  'no device found',
  'GND',
  'VCC',
  '3V3',
  'SDA',
  'SCL',
  'SCK',
  'MOSI',
  'D0',
  'GP4',
  'GPIO17',
  'A0',
  'PWM',
  'TIM3_CH1',
  'INT0',
  'input only',
  'OLED',
  'Clock',
  'pin',
  'label',
  'position',
  'red',
  '(blue wire)',
  'kHz',
  'k',
  '4k7',
  'Ω',
  'ohm',
  'µF',
  '5 V',
  'needs 5 V',
  'constructor',
  '__proto__',
  'é',
  'ß',
  '中',
  '😀',
  'İ',
  'a\u0301',
  '\u0301\u0301\u0301',
] as const;

/** A text of up to so many characters: pieces in a row, one of them often many times over. */
export function randomText(random: () => number, most: number): string {
  const length = Math.floor(most * random() ** 3);
  let text = '';
  while (text.length < length) {
    const piece = PIECES[Math.floor(random() * PIECES.length)]!;
    const times = random() < 0.15 ? Math.ceil((length - text.length) * random()) : 1;
    text += piece.repeat(Math.max(1, Math.min(times, 20_000)));
  }
  return text.slice(0, length);
}

/** A document with a few places changed: another kind of value, a number out of every range, a text, a key too many. */
export function spoilt(random: () => number, document: unknown): unknown {
  const copy = structuredClone(document);
  const times = 1 + Math.floor(random() * 3);
  for (let n = 0; n < times; n += 1) spoilOne(random, copy);
  return copy;
}

const ODD_VALUES = [null, true, -1, 0, 1e12, 1e300, '', 'x', [], {}, [[]], Number.MAX_SAFE_INTEGER, 0.1, 'constructor', '\ud800'] as const;

function spoilOne(random: () => number, node: unknown): void {
  if (node === null || typeof node !== 'object') return;
  const keys = Object.keys(node);
  const key = keys[Math.floor(random() * keys.length)];
  if (key === undefined) return;
  const holder = node as Record<string, unknown>;
  if (random() < 0.75 && holder[key] !== null && typeof holder[key] === 'object') return spoilOne(random, holder[key]);
  const choice = random();
  if (choice < 0.15) Reflect.deleteProperty(holder, key);
  else if (choice < 0.25) holder[randomText(random, 60) || 'more'] = holder[key];
  else if (choice < 0.35) holder[key] = randomText(random, 2000);
  else holder[key] = structuredClone(ODD_VALUES[Math.floor(random() * ODD_VALUES.length)]);
}
