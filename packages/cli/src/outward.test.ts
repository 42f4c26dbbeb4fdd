import { cli, hive } from '../tests/cli';

test('a list of wires is taken as far as it is clear, and says of each line what became of it', async () => {
  const files: Record<string, string> = {
    'p.json': hive,
    'list.txt': 'Encoder SW -> GP3\nGND -> GP4\nOLED 128×64 SDA -> GP4\nNobody X -> GP1',
  };
  const { code, out } = await cli(['import', 'p.json', 'list.txt'], files);
  expect([code, out.split('\n').map((line) => line.slice(line.lastIndexOf(': ') + 2))]).toEqual([
    1,
    ['taken', expect.any(String), 'already connected', 'no such terminal'],
  ]);
  expect((JSON.parse(files['p.json']!) as { wires: Record<string, { end: unknown }> }).wires['encoder-1:SW']!.end).toEqual({
    to: 'pin',
    pin: 'GP3',
  });
  expect(await cli(['import', 'p.json', 'empty.txt'], { ...files, 'empty.txt': 'nothing' })).toMatchObject({
    code: 2,
    err: expect.stringContaining('no wires found') as string,
  });
});

describe('scan and bench', () => {
  const files = { 'p.json': hive, 'scan.txt': '0x27 0x3C 0x44 0x45 0x57 0x69', 'odd.txt': 'hello' };

  test('a scan is held against the plan; what differs ends with 1', async () => {
    const { code, out } = await cli(['scan', 'p.json', 'scan.txt'], files);
    expect(code).toBe(1);
    expect(out).toMatch(/0x68 {2}missing +Clock[^]*0x69 {2}extra[^]*fix: set Motion to 0x69/);
    expect(await cli(['scan', 'p.json', 'odd.txt'], files)).toMatchObject({
      code: 2,
      err: expect.stringContaining('No addresses found') as string,
    });
    expect(await cli(['scan', 'p.json', 'scan.txt', '--bus', 'spi0'], files)).toMatchObject({
      code: 2,
      err: expect.stringContaining('expected one of the I2C buses i2c0') as string,
    });
  });

  test('the simulated bench answers on standard input, lists its faults, and the check names the one that is put in', async () => {
    const talk = await cli(['bench', 'p.json'], { ...files, '-': '1 hello\n2 scan GP4 GP5\n3 read GP4 down' });
    expect(talk.out.split('\n')).toEqual(['1 ok probe 1 rp2040-stick-40', '2 ok 27 3c 44 45 57 68', '3 ok 1']);
    const list = (await cli(['bench', 'p.json', '--list'], files)).out.split('\n');
    expect(list).toContain('no-pull-up i2c0: I2C0: no pull-up resistors');
    const check = await cli(['bench', 'p.json', '--check', '--fault', 'no-pull-up i2c0'], files);
    expect([check.code, check.out.split('\n')[1]]).toEqual([1, 'I2C0: no pull-up resistors']);
    expect(await cli(['bench', 'p.json', '--check'], files)).toMatchObject({ code: 0 });
    expect(await cli(['bench', 'p.json', '--fault', 'nothing'], files)).toMatchObject({
      code: 2,
      err: expect.stringContaining('--list shows the faults') as string,
    });
    expect(await cli(['bench', 'p.json', '--seed', 'x'], files)).toMatchObject({ code: 2 });
  });
});

describe('export', () => {
  const files = { 'p.json': hive };

  test('writes every format that the board has a use for, and lists them', async () => {
    const list = (await cli(['export'])).out.split('\n');
    expect(list).toHaveLength(14);
    for (const line of list) {
      const id = line.slice(0, line.indexOf(':'));
      const { out, code } = await cli(['export', 'p.json', id], files);
      if (id === 'overlay' || id === 'holes') expect(code).toBe(2);
      else expect({ id, code, long: out.length > (id === 'components' ? 60 : 500) }).toEqual({ id, code: 0, long: true });
    }
    expect((await cli(['export', 'p.json', 'cpp'], files)).out).toMatch(/namespace hive_watch \{[^]*constexpr uint8_t pin_sda = 4;/);
  });

  test('a format that is none is a sentence with those there are', async () => {
    expect(await cli(['export', 'p.json', 'word'], files)).toMatchObject({
      code: 2,
      err: expect.stringContaining('word: expected one of cpp, c, micropython') as string,
    });
  });
});
