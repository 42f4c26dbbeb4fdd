/** @jest-environment jsdom */
import { act, cleanup, screen } from '@testing-library/react';
import type { Plan } from '@roof-chart/core/plan/plan';
import { reviewPlan } from '@roof-chart/core/review/review';
import { shippedSheets } from '../../../core/tests/catalogue';
import { add, edited, stick, wire } from '../../../core/tests/makePlan';
import { mount } from '../../tests/mount';
import { reviewActions } from '../state/reviewSlice';
import { Steps } from './Steps';

const sheets = shippedSheets();
const notes = (): readonly (string | null)[] => screen.getAllByRole('link').map((link) => link.textContent);

/** What the steps say of a plan. */
function notesOf(plan: Plan): readonly (string | null)[] {
  const { store } = mount(<Steps />, plan, sheets);
  act(() => void store.dispatch(reviewActions.reviewed({ plan, result: reviewPlan(plan, sheets) })));
  const said = notes();
  cleanup();
  return said;
}

test('the step of findings does not count what the step of wires counts, and says so', () => {
  const open = notesOf(edited(stick(), sheets, add('b', 'button-push')));
  expect(open.slice(1)).toEqual(['Parts1', 'Wires2 unconnected', 'Findingsno other errors', 'Build0 of 0']);
  const wired = notesOf(edited(stick(), sheets, add('b', 'button-push'), wire('b:C1', 'GP2'), wire('b:C2', 'ground')));
  expect(wired.slice(2)).toEqual(['Wires2', 'Findingsno errors', 'Build0 of 2']);
});

test('errors are counted', () => {
  const crossed = edited(
    stick(),
    sheets,
    add('a', 'light-bh1750'),
    add('b', 'light-bh1750'),
    ...['a', 'b'].flatMap((id) => [
      wire(`${id}:SDA`, 'GP4'),
      wire(`${id}:SCL`, 'GP5'),
      wire(`${id}:VCC`, 'rail 3v3'),
      wire(`${id}:GND`, 'ground'),
    ]),
  );
  expect(notesOf(crossed)[3]).toMatch(/^Findings\d errors?$/);
});
