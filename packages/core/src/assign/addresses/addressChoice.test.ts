import fc from 'fast-check';
import { shippedSheets } from '../../../tests/catalogue';
import { add, edited, stick, wire } from '../../../tests/makePlan';
import { runs } from '../../../tests/runs';
import { boardOf } from '../../plan/edit';
import { cheapestAddresses } from './addressChoice';
import { addressOptions } from './addressOptions';
import type { AddressOption, Member } from '../model/instance';

const member = (id: number, addresses: readonly AddressOption[], beyond: readonly number[] = []): Member => ({
  id: `m${id}`,
  kind: 'i2c',
  placements: [`m${id}`],
  lines: ['sda', 'scl'],
  controllers: ['i2c0'],
  fixed: {},
  here: {},
  addresses,
  ...(beyond.length > 0 ? { beyond } : {}),
  leave: { unwired: 2, moved: 0 },
});

/** The fewest changes by trying every combination, or null. */
function leastMoved(members: readonly Member[], taken = new Set(members.flatMap((m) => m.beyond ?? []))): number | null {
  const [first, ...rest] = members;
  if (!first) return 0;
  const options = first.addresses.flatMap((option) => {
    if (option.addresses.some((address) => taken.has(address))) return [];
    const others = leastMoved(rest, new Set([...taken, ...option.addresses]));
    return others === null ? [] : [option.moved + others];
  });
  return options.length > 0 ? Math.min(...options) : null;
}

const option = fc.record({
  addresses: fc.uniqueArray(fc.integer({ min: 0x20, max: 0x24 }), { minLength: 1, maxLength: 2 }),
  straps: fc.constant({}),
  moved: fc.nat(2),
});

const options = fc.array(option, { minLength: 1, maxLength: 3 });
/** What answers behind the channels of a member: of most nothing. */
const beyond: fc.Arbitrary<readonly number[]> = fc.oneof(
  { weight: 3, arbitrary: fc.constant([]) },
  { weight: 1, arbitrary: fc.array(fc.integer({ min: 0x20, max: 0x24 }), { maxLength: 2 }) },
);

test('addresses are chosen as by trying every combination, and never meet', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(options, beyond), { minLength: 1, maxLength: 5 }), (lists) => {
      const members = lists.map(([addresses, behind], id) => member(id, addresses, behind));
      const found = cheapestAddresses(members);
      expect(found?.moved ?? null).toBe(leastMoved(members));
      const all = (found?.options ?? []).flatMap((o) => o?.addresses ?? []);
      expect(new Set(all).size).toBe(all.length);
      for (const [, behind] of lists) expect(all.filter((address) => behind.includes(address))).toEqual([]);
    }),
    { numRuns: runs(1500) },
  );
});

test('seventeen parts of sixteen addresses have no choice, and it does not take for ever to see', () => {
  const sixteen = Array.from({ length: 16 }, (_, at) => ({ addresses: [0x40 + at], straps: {}, moved: at === 0 ? 0 : 1 }));
  const of = (count: number) => cheapestAddresses(Array.from({ length: count }, (_, id) => member(id, sixteen)));
  expect([of(16)?.moved, of(17)]).toEqual([15, null]);
});

describe('the options of a part', () => {
  const sheets = shippedSheets();
  const options = (...edits: Parameters<typeof edited>[2][]) => {
    const plan = edited(stick(), sheets, add('m', 'motion-mpu6050'), ...edits);
    return addressOptions(
      { plan, board: boardOf(plan, sheets)! },
      { placement: plan.placements[0]!, part: sheets.parts.get('motion-mpu6050')!.sheet },
    );
  };

  test('the present address first; a strap that is wired already counts as moved', () => {
    expect(options().map((o) => [o.addresses, o.moved])).toEqual([
      [[0x68], 0],
      [[0x69], 0],
    ]);
    expect(options(wire('m:AD0', 'ground')).map((o) => [o.addresses, o.moved])).toEqual([
      [[0x68], 0],
      [[0x69], 1],
    ]);
  });

  test('a locked strap leaves one address', () => {
    const lock = { kind: 'lock', placement: 'm', terminal: 'AD0', locked: true } as const;
    expect(options(wire('m:AD0', 'rail 3v3'), lock).map((o) => o.addresses)).toEqual([[0x69]]);
  });
});
