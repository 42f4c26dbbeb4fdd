import { boardOf } from '../plan/edit';
import type { Plan, WireEnd } from '../plan/plan';
import type { Sheets } from '../sheets/sheetIndex';
import { type BoardPosition, positionsOf } from './boardPosition';
import type { BuildStep } from './buildSheet';
import type { ChipEnd } from './chipCircuit';

const placesOf = (ends: readonly (ChipEnd | undefined)[]): readonly BoardPosition[] => ends.flatMap((end) => end?.at ?? []);

/** The board positions that a build step is about: those of its wire, of the pins of a bare chip, or of the legs of a component. Empty for
 *  steps away from the board. */
export function stepPositions(plan: Plan, sheets: Sheets, { what }: BuildStep): readonly BoardPosition[] {
  const board = boardOf(plan, sheets);
  const at = (end: WireEnd): readonly BoardPosition[] => (board ? positionsOf(board, end) : []);
  switch (what.is) {
    case 'wire':
      return what.wire.at;
    case 'joint':
      return what.joint.at;
    case 'chip-supply':
      return placesOf(what.supply.pins);
    case 'chip-component':
      return placesOf(what.component.ends);
    case 'chip-connector':
      return placesOf(what.connector.pins.map(({ end }) => end));
    case 'component':
      return what.component.ends.flatMap(({ at: end }) => (end.to === 'pin' || end.to === 'rail' || end.to === 'ground' ? at(end) : []));
    case 'setting':
    case 'tolerance':
      return what.pins.flatMap((pin) => at({ to: 'pin', pin }));
    default:
      return [];
  }
}
