import type { BoardPin, BoardSheet } from '@roof-chart/core/sheets/boardSheet';

const EDGES = ['north', 'east', 'south', 'west'] as const;
const PER_EDGE = 36;
const made = { document: 'Made up for measuring', trust: 'bench' } as const;

function pin(n: number): BoardPin {
  const functions = [
    `i2c${Math.floor(n / 2) % 6}.${n % 2 ? 'scl' : 'sda'}`,
    `spi${Math.floor(n / 8) % 4}.${['miso', 'cs', 'sck', 'mosi'][n % 4]}`,
  ];
  return {
    id: `P${n}`,
    header: EDGES[Math.floor(n / PER_EDGE)]!,
    position: (n % PER_EDGE) + 1,
    label: `P${n}`,
    port: `PORT${n}`,
    kind: 'io',
    functions,
    pwm: { timer: `timer ${Math.floor(n / 4)}`, channel: `T${n}` },
    interrupts: [{ line: `EXT${n % 16}`, shared: true }],
    ...(n % 9 === 0 ? { adc: { unit: 'adc0', channel: n / 9 } } : {}),
    grade: 'free',
  };
}

/** A made-up board with 144 signal pins on four edges, six I2C and four SPI controllers. */
export function largeBoard(): BoardSheet {
  const rail = {
    id: '3v3',
    label: '3V3',
    volts: { min: 3.2, typ: 3.3, max: 3.4 },
    budgetMilliamps: 800,
    feed: 'Made up.',
    direction: 'out',
  } as const;
  const five = {
    id: '5v',
    label: '5V',
    volts: { min: 4.75, typ: 5, max: 5.25 },
    budgetMilliamps: 1500,
    feed: 'Made up.',
    direction: 'out',
  } as const;
  const bus = (kind: 'i2c' | 'spi', n: number) => ({
    id: `${kind}${n}`,
    kind,
    title: `${kind.toUpperCase()}${n}`,
    maxHz: 1e6,
    legal: { rule: 'membership' } as const,
  });
  return {
    kind: 'board',
    schema: 1,
    id: 'made-up-144',
    version: 1,
    chip: 'made up',
    form: '144 pins',
    title: 'Made-up board, 144 pins',
    summary: 'For measuring only.',
    system: 'bare',
    logicRail: '3v3',
    headers: {
      source: made,
      list: EDGES.map((id, at) => ({
        id,
        title: `${id} edge`,
        ends: ['pin 1', 'last pin'] as const,
        side: at % 2 ? ('right' as const) : ('left' as const),
      })),
    },
    pins: { source: made, list: Array.from({ length: EDGES.length * PER_EDGE }, (_, n) => pin(n)) },
    controllers: { source: made, list: [...[0, 1, 2, 3, 4, 5].map((n) => bus('i2c', n)), ...[0, 1, 2, 3].map((n) => bus('spi', n))] },
    rails: { source: made, list: [rail, five] },
    electrical: {
      source: made,
      vdd: { min: 3, typ: 3.3, max: 3.6 },
      vihMin: { ratio: 0.7 },
      vilMax: { ratio: 0.3 },
      vohMin: { volts: 2.9, atMilliamps: 4 },
      volMax: { volts: 0.4, atMilliamps: 4 },
      inputMaxAboveSupply: 0.3,
      pullUpOhms: { min: 30000, max: 60000 },
      pinMilliamps: 10,
      totalMilliamps: 150,
      resetState: 'Input.',
    },
    memory: { source: made, ramBytes: 1048576, flashBytes: 2097152, eepromBytes: 0 },
    onBoard: { source: made, list: [] },
    unknown: [],
  };
}
