import type { SpotlightActionData, SpotlightActionGroupData } from '@mantine/spotlight';
import { describeFinding, describeFix } from '@roof-chart/core/text/describe';
import { CALCULATIONS } from '@roof-chart/core/electrics/calculations/calculations';
import { findBuses } from '@roof-chart/core/nets/buses';
import { pinAbilities } from '@roof-chart/core/nets/pinWords';
import { terminalsOf } from '@roof-chart/core/nets/terminals';
import { boardOf, type Edit } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import type { Reviewed } from '../../state/reviewSlice';
import { CALCULATION_SYNONYMS } from './synonyms';

/** What the search leads to, and how. */
export interface PlaceSearch {
  readonly plan: Plan;
  readonly sheets: Sheets;
  readonly reviewed: Reviewed | null;
  /** Shows a row or column of the Chart. */
  readonly show: (focus: { readonly terminal?: string; readonly pin?: string }) => void;
  /** Opens a view of the plan. */
  readonly open: (path: string) => void;
  readonly edit: (edits: readonly Edit[], label: string) => void;
}

type Actions = readonly SpotlightActionData[];

const wireActions = ({ plan, sheets, show }: PlaceSearch): Actions =>
  plan.placements.flatMap((placement) =>
    terminalsOf(plan, placement, sheets)
      .filter((t) => t.terminal.role !== 'external')
      .map((t) => ({
        id: `wire-${t.key}`,
        label: `${placement.name} ${t.terminal.label}`,
        description: t.part.title,
        onClick: () => show({ terminal: t.key }),
      })),
  );

function pinActions({ plan, sheets, show }: PlaceSearch): Actions {
  const board = boardOf(plan, sheets);
  if (!board) return [];
  return board.ioPins.map((pin) => ({
    id: `pin-${pin.id}`,
    label: pin.label,
    description: pinAbilities(board, pin).join(', '),
    onClick: () => show({ pin: pin.id }),
  }));
}

/** Findings of the newest review, each with its text. */
function findingsOf({ sheets, reviewed }: PlaceSearch) {
  if (!reviewed?.result.ok) return [];
  const { plan } = reviewed;
  return reviewed.result.review.findings.map((finding) => ({ plan, finding, title: describeFinding(plan, sheets, finding).title }));
}

const findingActions = (search: PlaceSearch): Actions =>
  findingsOf(search).map(({ finding, title }) => ({
    id: `finding-${finding.id}`,
    label: title,
    description: finding.code,
    onClick: () => search.open(`chart?finding=${encodeURIComponent(finding.id)}`),
  }));

const fixActions = (search: PlaceSearch): Actions =>
  findingsOf(search).flatMap(({ plan, finding, title }) =>
    finding.remedies.map((remedy, n) => {
      const label = describeFix(plan, search.sheets, finding.code, remedy);
      return { id: `fix-${finding.id}-${n}`, label, description: title, onClick: () => search.edit(remedy.edits, label) };
    }),
  );

const BUS_KEYWORDS = { i2c: ['400 kHz', 'pull-up', 'address'], spi: ['chip select', 'daisy chain'], uart: [] } as const;

function busActions({ plan, sheets, open }: PlaceSearch): Actions {
  const controllers = boardOf(plan, sheets)?.controllers;
  return findBuses(plan, sheets).flatMap(({ controller, kind }): Actions => {
    const found = controller === undefined ? undefined : controllers?.get(controller);
    if (!found) return [];
    const label = `Open ${found.title}: addresses, clock, bus load`;
    return [{ id: `bus-${found.id}`, label, keywords: [kind, ...BUS_KEYWORDS[kind]], onClick: () => open(`buses/${found.id}`) }];
  });
}

const calculationActions = ({ open }: PlaceSearch): Actions =>
  CALCULATIONS.map(({ id, words }) => ({
    id: `calculation-${id}`,
    label: words.replace(/\.$/, ''),
    description: 'Calculator',
    keywords: [...(CALCULATION_SYNONYMS[id] ?? [])],
    onClick: () => open(`resistors?calculation=${id}`),
  }));

/** Findings, fixes, buses, calculators, wires and pins as actions. */
export const placeGroups = (search: PlaceSearch): readonly SpotlightActionGroupData[] => [
  { group: 'Findings', actions: [...findingActions(search)] },
  { group: 'Fixes', actions: [...fixActions(search)] },
  { group: 'Buses', actions: [...busActions(search)] },
  { group: 'Calculators', actions: [...calculationActions(search)] },
  { group: 'Wires', actions: [...wireActions(search)] },
  { group: 'Pins', actions: [...pinActions(search)] },
];
