import { currentText, hexByte, displayLayoutText, memoryText, tableText } from './displayText';

test('memory says what there is, what pictures take, and what is left or missing', () => {
  expect(memoryText({ ramBytes: 2048, runtimeBytes: 250, usedBytes: 1024, leftBytes: 774, lines: [] })).toBe(
    '2 KiB RAM, 250 B for the runtime and its stack, 1 KiB for frame buffers: 774 B left for the program.',
  );
  expect(memoryText({ ramBytes: 2048, runtimeBytes: 0, usedBytes: 8192, leftBytes: -6144, lines: [] })).toMatch(/6 KiB over the limit\.$/);
});

test('a layout says its room, what is cut and what has no form', () => {
  const layout = { rows: 1, columns: 8, lines: [], first: 0, cut: 1, unknown: ['W', 'M'], oneFont: false };
  expect(displayLayoutText(layout)).toBe('1 row × 8 characters; 1 character cut off; not available: W M');
  expect(displayLayoutText({ ...layout, cut: 0, unknown: [], scroll: { width: 54, steps: 86 } })).toBe(
    '1 row × 8 characters; scrolls: 54 columns wide, 86 steps, 4.3 s at 20 steps per second',
  );
});

test('a table is text with a line a glyph', () => {
  const table = {
    bits: [],
    activeLow: false,
    digits: [],
    walk: [],
    glyphs: [
      { glyph: '0', byte: 0x3f },
      { glyph: ' ', byte: 0 },
    ],
  };
  expect(tableText(table)).toBe('glyph\tbyte\n0\t0x3F\nblank\t0x00');
  const digits = [
    { digit: 'DIG1', output: 'DIG0', index: 0 },
    { digit: 'DIG2', output: 'GP5', index: undefined },
  ];
  expect(
    tableText({ ...table, digits })
      .split('\n')
      .slice(3),
  ).toEqual(['digit\toutput', 'DIG1\t0 (DIG0)', 'DIG2\tGP5']);
  expect(hexByte(7)).toBe('0x07');
});

test('the current of a segment, with its duty where digits take turns', () => {
  const amps = { min: 0.018, typ: 0.02, max: 0.022 };
  expect(currentText({ amps, digits: 8 })).toBe('Segment current 18 mA to 22 mA at 1/8 duty: 2.5 mA on average at full brightness.');
  expect(currentText({ amps, digits: 1 })).toBe('Segment current 18 mA to 22 mA, always on.');
});
