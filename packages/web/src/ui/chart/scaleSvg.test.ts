import { scaleSvg } from './scaleSvg';

test('an axis becomes a picture with every row, mark, window and tick, whatever is in its names', () => {
  const svg = scaleSvg({
    label: 'Current of <3V3>',
    scale: {
      min: 0,
      max: 100,
      log: false,
      ticks: [
        { at: 0, label: '0 A' },
        { at: 100, label: '100 mA' },
      ],
    },
    rows: [
      { id: 'a', head: 'Lamp "&', value: '20 mA', marks: [{ at: 20, kind: 'disc', from: 0, to: 20 }], hung: true },
      {
        id: 'b',
        head: 'Strip',
        value: '90 mA',
        marks: [
          { at: 90, kind: 'clash' },
          { at: 5, kind: 'ring' },
        ],
      },
    ],
    windows: [{ from: 80, to: 100, tone: 'clash' }],
    total: { at: 80, words: 'gives 80 mA' },
  });
  expect(svg.match(/<circle /g)).toHaveLength(3);
  expect(svg.match(/<rect /g)).toHaveLength(2);
  for (const words of ['Current of &lt;3V3&gt;', 'Lamp &quot;&amp;', 'Strip', '20 mA', '100 mA', 'gives 80 mA'])
    expect(svg).toContain(words);
  expect(svg).not.toMatch(/NaN|undefined/);
});
