import fc from 'fast-check';
import { arbitraryEdit } from '../../tests/arbitraryEdits';
import { versionedSheets } from '../../tests/catalogue';
import { shield, stick } from '../../tests/makePlan';
import { runs } from '../../tests/runs';
import { applyEdit } from '../plan/applyEdits';
import type { Plan } from '../plan/plan';
import { findBuses } from './buses';
import { findNets, type Nets } from './nets';
import { openOf, openTerminals } from './openTerminals';
import { planTerminals } from './terminals';

const sheets = versionedSheets();

/** Nets without the objects they are made of. */
const told = ({ list, byPin, byTerminal }: Nets) => ({
  list: list.map((net) => ({
    id: net.id,
    terminals: net.terminals.map((t) => [t.key, t.placement.name, t.placement.sheet, t.wire, t.joins]),
    pins: net.pins,
    rails: net.rails,
    ground: net.ground,
    signals: net.signals.map((s) => [s.id, s.terminals.map((t) => t.key)]),
  })),
  byPin: [...byPin].map(([pin, net]) => [pin, net.id]),
  byTerminal: [...byTerminal].map(([key, net]) => [key, net.id]),
});

/** The same plan as nobody has seen it: nothing that is remembered can be of it. */
const unseen = (plan: Plan): Plan => structuredClone(plan);

test.each([stick(), shield()])(
  'nets, buses and open terminals that are remembered are those that would be found anew, after any edits on $board.id',
  (empty) => {
    fc.assert(
      fc.property(fc.array(arbitraryEdit(sheets, empty.board.id), { maxLength: 40 }), (edits) => {
        let plan: Plan = empty;
        for (const edit of edits) {
          const result = applyEdit(plan, edit, sheets);
          if (!result.ok) continue;
          plan = result.plan;
          expect(told(findNets(plan, sheets))).toEqual(told(findNets(unseen(plan), sheets)));
          expect(findBuses(plan, sheets)).toEqual(findBuses(unseen(plan), sheets));
        }
        const terminals = planTerminals(plan, sheets);
        expect(openOf(plan, terminals).map((t) => t.key)).toEqual(openTerminals(terminals, findNets(plan, sheets)).map((t) => t.key));
      }),
      { numRuns: runs(60) },
    );
  },
);
