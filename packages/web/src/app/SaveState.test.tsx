/** @jest-environment jsdom */
import { act, screen } from '@testing-library/react';
import { shippedSheets } from '../../../core/tests/catalogue';
import { stick } from '../../../core/tests/makePlan';
import { mount } from '../../tests/mount';
import { documentActions } from '../state/documentSlice';
import { SaveState } from './SaveState';

test('where the edits are is said in words, and looks different while they are not on the server', () => {
  const { store } = mount(<SaveState />, stick(), shippedSheets());
  const shown = () => [screen.getByRole('status').textContent, screen.getByRole('status').className];
  expect(shown()).toEqual(['Saved', 'saved']);
  const batch = { id: 'b', edits: [] };
  act(() => void store.dispatch(documentActions.did({ plan: stick(), batch, step: { label: 'x', edits: [], inverse: [] } })));
  act(() => void store.dispatch(documentActions.saving()));
  expect(shown()).toEqual(['Saving', 'saved']);
  for (const [why, words] of [
    ['offline', 'Offline: kept in this browser'],
    ['full', 'Server disk full: kept in this browser'],
    ['signed-out', 'Signed out: kept in this browser'],
  ] as const) {
    act(() => void store.dispatch(documentActions.held(why)));
    expect(shown()).toEqual([words, 'offline']);
  }
  act(() => void store.dispatch(documentActions.choiceAsked('gone')));
  expect(shown()).toEqual(['Not saved: choose a version', 'offline']);
  act(() => void store.dispatch(documentActions.saved({ revision: 2, batches: 1 })));
  expect(shown()).toEqual(['Saved', 'saved']);
});
