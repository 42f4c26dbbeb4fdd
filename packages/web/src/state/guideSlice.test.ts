import { guideActions, guideSlice, writeGuide } from './guideSlice';

const { reducer, getInitialState } = guideSlice;

/** Storage of a browser, which may be forbidden. */
function store(isForbidden = false): Map<string, string> {
  const kept = new Map<string, string>();
  const allowed = <T>(work: () => T): T => {
    if (isForbidden) throw new DOMException('refused');
    return work();
  };
  Object.defineProperty(globalThis, 'localStorage', {
    configurable: true,
    value: {
      getItem: (key: string) => allowed(() => kept.get(key) ?? null),
      setItem: (key: string, value: string) => allowed(() => kept.set(key, value)),
      removeItem: (key: string) => allowed(() => kept.delete(key)),
    },
  });
  return kept;
}

afterEach(() => Reflect.deleteProperty(globalThis, 'localStorage'));

test('the guided example is known again after a reload, until it is left', () => {
  const kept = store();
  expect(getInitialState()).toEqual({ planId: null });
  writeGuide('first-plan');
  expect([getInitialState(), [...kept]]).toEqual([{ planId: 'first-plan' }, [['roof-chart-guide', 'first-plan']]]);
  writeGuide(null);
  expect([getInitialState(), kept.size]).toEqual([{ planId: null }, 0]);
});

test('it starts with a plan and ends without one', () => {
  store();
  const started = reducer(undefined, guideActions.guideStarted('first-plan'));
  expect(started).toEqual({ planId: 'first-plan' });
  expect(reducer(started, guideActions.guideLeft())).toEqual({ planId: null });
});

test('where storage is forbidden there is no guide, and no error', () => {
  store(true);
  expect(getInitialState()).toEqual({ planId: null });
  expect(() => writeGuide('first-plan')).not.toThrow();
  expect(() => writeGuide(null)).not.toThrow();
});
