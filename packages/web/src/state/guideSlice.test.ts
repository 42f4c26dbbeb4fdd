/** @jest-environment jsdom */
import { guideActions, guideSlice, writeGuide } from './guideSlice';

const { reducer, getInitialState } = guideSlice;

beforeEach(() => localStorage.clear());
afterEach(() => jest.restoreAllMocks());

test('the guided example is known again after a reload, until it is left', () => {
  expect(getInitialState()).toEqual({ planId: null });
  writeGuide('first-plan');
  expect(getInitialState()).toEqual({ planId: 'first-plan' });
  writeGuide(null);
  expect(getInitialState()).toEqual({ planId: null });
});

test('it starts with a plan and ends without one', () => {
  const started = reducer(undefined, guideActions.guideStarted('first-plan'));
  expect(started).toEqual({ planId: 'first-plan' });
  expect(reducer(started, guideActions.guideLeft())).toEqual({ planId: null });
});

test('where storage is forbidden there is no guide, and no error', () => {
  const refuse = () => {
    throw new DOMException('refused');
  };
  jest.spyOn(Storage.prototype, 'getItem').mockImplementation(refuse);
  jest.spyOn(Storage.prototype, 'setItem').mockImplementation(refuse);
  jest.spyOn(Storage.prototype, 'removeItem').mockImplementation(refuse);
  expect(getInitialState()).toEqual({ planId: null });
  expect(() => writeGuide('first-plan')).not.toThrow();
  expect(() => writeGuide(null)).not.toThrow();
});
