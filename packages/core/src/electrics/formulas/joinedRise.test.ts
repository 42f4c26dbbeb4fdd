import fc from 'fast-check';
import { runs } from '../../../tests/runs';
import { busPullUps, type PullUp, type PullUpInput } from './busPullUps';
import { JoinedRise, type RiseNode } from './joinedRise';

/** The same lines by small steps of time: a stretch is one with the first while that is below where it parts. */
function stepped(nodes: readonly RiseNode[], step: number, until: number): readonly (readonly number[])[] {
  const volts = nodes.map(() => 0);
  const parted = nodes.map((_, at) => at === 0);
  parted[0] = false;
  const traces: number[][] = nodes.map(() => [0]);
  for (let time = 0; time < until; time += step) {
    for (const [at, node] of nodes.entries()) if (at > 0 && volts[0]! >= (node.partsAt ?? Infinity)) parted[at] = true;
    const amps = nodes.map((node, at) => (Number.isFinite(node.ohms) ? (node.rest - volts[at]!) / node.ohms : 0));
    const joined = nodes.flatMap((_, at) => (parted[at] ? [] : [at]));
    const slope = joined.reduce((sum, at) => sum + amps[at]!, 0) / joined.reduce((sum, at) => sum + nodes[at]!.farads, 0);
    for (const at of nodes.keys()) volts[at]! += step * (parted[at] ? amps[at]! / nodes[at]!.farads : slope);
    for (const at of nodes.keys()) traces[at]!.push(volts[at]!);
  }
  return traces;
}

const node = (volts: number, partsAt?: fc.Arbitrary<number>): fc.Arbitrary<RiseNode> =>
  fc.record({
    ohms: fc.constantFrom(1000, 2200, 4700, 10_000),
    rest: fc.constant(volts),
    farads: fc.integer({ min: 20, max: 300 }).map((pF) => pF * 1e-12),
    ...(partsAt ? { partsAt } : {}),
  }) as fc.Arbitrary<RiseNode>;

test('two phases by formula are what small steps of time give, for one and for two level shifters', () => {
  fc.assert(
    fc.property(
      node(3.3),
      fc.array(node(5, fc.double({ min: 1.5, max: 2.6, noNaN: true })), { minLength: 0, maxLength: 2 }),
      (root, branches) => {
        const nodes: [RiseNode, ...RiseNode[]] = [root, ...branches];
        const rise = new JoinedRise(nodes);
        const [step, until] = [0.4e-9, 2e-6];
        const traces = stepped(nodes, step, until);
        for (const [at, trace] of traces.entries())
          for (const n of [20, 100, 500, 1500, 4900]) expect(Math.abs(rise.at(at, n * step) - trace[n]!)).toBeLessThan(0.03);
        const vdd = branches.length > 0 ? 5 : 3.3;
        const last = traces.at(-1)!;
        const first = (share: number) => last.findIndex((v) => v >= share * vdd);
        if (first(0.7) > 0) expect(rise.rise(nodes.length - 1, vdd)).toBeCloseTo((first(0.7) - first(0.3)) * step, 8);
      },
    ),
    { numRuns: runs(60) },
  );
});

test('one side alone by the usual formula is wrong by tens of percent where both sides rise together', () => {
  // 3.3 V with 4.7 kΩ and 100 pF, a transistor that parts at 1.8 V, 5 V with 4.7 kΩ and 100 pF behind it.
  const low: RiseNode = { ohms: 4700, rest: 3.3, farads: 100e-12 };
  const joined = new JoinedRise([low, { ohms: 4700, rest: 5, farads: 100e-12, partsAt: 1.8 }]);
  // By hand: together 2350 Ω to 4.15 V with 200 pF (0.47 µs); 0.99 V to 1.8 V takes 0.47 µs · ln(3.16/2.35) = 139 ns;
  // then 4700 Ω to 3.3 V with 100 pF (0.47 µs): 1.8 V to 2.31 V takes 0.47 µs · ln(1.5/0.99) = 195 ns.
  expect(joined.rise(0, 3.3) * 1e9).toBeCloseTo(139.2 + 195.3, 0);
  const alone = 0.8473 * 4700 * 100e-12;
  expect(joined.rise(0, 3.3) / alone).toBeLessThan(0.85);
});

test('a side without a pull-up of its own is pulled as far as the other reaches, and no farther', () => {
  const bare = new JoinedRise([
    { ohms: 4700, rest: 3.3, farads: 50e-12 },
    { ohms: Infinity, rest: 0, farads: 50e-12, partsAt: 1.8 },
  ]);
  expect([bare.reaches(1, 1.7) < Infinity, bare.reaches(1, 2.5), bare.rise(0, 3.3) < Infinity]).toEqual([true, Infinity, true]);
  expect(bare.at(1, 1)).toBeCloseTo(1.8, 6);
});

const pull = (ohms: number, volts: number): PullUp => ({
  id: `r${ohms}`,
  ohms: { min: ohms * 0.95, typ: ohms, max: ohms * 1.05 },
  volts: { min: volts, max: volts },
});
const side = (volts: number, farads = 60e-12): Omit<PullUpInput, 'hz'> => ({
  vdd: { min: volts, max: volts },
  pullUps: [pull(10_000, volts)],
  sinks: [{ id: `at ${volts} V`, volts: 0.4, amps: 3e-3 }],
  farads,
});

test('who pulls low sinks the currents of both sides; the window of each side knows of the other', () => {
  const low = busPullUps({
    ...side(3.3),
    hz: 100e3,
    joined: [{ ...side(5), pullUps: [pull(2200, 5)], id: 'far', partsAt: { min: 1.7, max: 2.6 } }],
  });
  expect(low.sinkAmps * 1e3).toBeCloseTo(2.9 / 9.5 + 4.6 / 2.09, 6);
  expect(low.leastOhms).toBeCloseTo(2.9 / (3e-3 - 4.6 / 2090), 3);
  expect(low.allFarads).toBeCloseTo(120e-12, 15);
  const far = busPullUps({
    ...side(5),
    pullUps: [],
    partsAt: { min: 1.7, max: 2.6 },
    hz: 100e3,
    joined: [{ ...side(3.3), id: 'near' }],
    root: 'near',
  });
  // Nothing pulls the far side above where it parts.
  expect([far.verdict, far.riseSeconds!.max]).toEqual(['too-weak', Infinity]);
});

test('more pull-ups on either side never make the current less; the most resistance keeps the rise', () => {
  const ohms = fc.constantFrom(2200, 4700, 10_000, 22_000);
  fc.assert(
    fc.property(ohms, ohms, ohms, fc.integer({ min: 20, max: 200 }), (near, far, more, picofarads) => {
      const input = (extra: readonly PullUp[]): PullUpInput => ({
        ...side(3.3, picofarads * 1e-12),
        pullUps: [pull(near, 3.3)],
        hz: 100e3,
        joined: [{ ...side(5), pullUps: [pull(far, 5), ...extra], id: 'far', partsAt: { min: 1.7, max: 2.6 } }],
      });
      const [before, after] = [busPullUps(input([])), busPullUps(input([pull(more, 5)]))];
      expect(after.sinkAmps).toBeGreaterThan(before.sinkAmps);
      const at = busPullUps({ ...input([]), pullUps: [{ ...pull(1, 3.3), ohms: { min: before.mostOhms, max: before.mostOhms * 0.999 } }] });
      expect(at.riseSeconds!.max).toBeLessThanOrEqual(before.riseLimitSeconds * 1.001);
    }),
    { numRuns: runs(40) },
  );
});
