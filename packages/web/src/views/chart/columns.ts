import { headerPins } from '@roof-chart/core/sheets/headerPins';
import type { WireEnd } from '@roof-chart/core/plan/plan';
import type { BoardPin } from '@roof-chart/core/sheets/boardSheet';
import type { IndexedBoard } from '@roof-chart/core/sheets/sheetIndex';
import { pinAbilities } from '@roof-chart/core/nets/pinWords';
import type { ColumnBlock, ChartColumn } from '../../ui/chart/layout';

/** Columns of the chart are wire ends: pins by their id, rails as `rail:ID`, ground as `ground`. */
export function columnOfEnd(end: WireEnd): string | null {
  if (end.to === 'pin') return end.pin;
  if (end.to === 'rail') return `rail:${end.rail}`;
  return end.to === 'ground' ? 'ground' : null;
}

/** The wire end of a column, or null if nothing can be connected (control pins, unused positions). */
export function endOfColumn(board: IndexedBoard, column: string): WireEnd | null {
  if (column === 'ground') return { to: 'ground' };
  if (column.startsWith('rail:')) return { to: 'rail', rail: column.slice(5) };
  const pin = board.pins.get(column);
  if (pin?.kind === 'io') return { to: 'pin', pin: pin.sameAs ?? pin.id };
  if (pin?.kind === 'ground') return { to: 'ground' };
  return pin?.kind === 'supply' && pin.rail ? { to: 'rail', rail: pin.rail } : null;
}

function pinTitle(board: IndexedBoard, pin: BoardPin): string {
  const able = pin.sameAs ? `same conductor as ${pin.sameAs}` : pinAbilities(board, pin).join(', ');
  return [`${pin.label}, position ${pin.position}`, pin.port !== pin.label ? pin.port : '', able, pin.trouble ?? '']
    .filter(Boolean)
    .join(', ');
}

function pinColumn(board: IndexedBoard, pin: BoardPin): ChartColumn {
  return {
    id: pin.id,
    label: pin.label,
    over: String(pin.position),
    tone: pin.kind === 'io' ? 'open' : 'quiet',
    ...(pin.sameAs ? { sameAs: pin.sameAs } : {}),
    title: pinTitle(board, pin),
  };
}

/** The roof of a board: ground and rails at the left, then its headers in physical order. */
export function boardBlocks(board: IndexedBoard): readonly ColumnBlock[] {
  const { sheet } = board;
  const rails = sheet.rails.list.map((rail): ChartColumn => ({
    id: `rail:${rail.id}`,
    // The roof has room for the name of a terminal; the title has the part that gives the supply.
    label: rail.terminal ?? rail.label,
    tone: 'power',
    title: `Rail ${rail.label}, ${rail.volts.min} V to ${rail.volts.max} V`,
  }));
  const ground: ChartColumn = { id: 'ground', label: 'GND', tone: 'power', title: 'Ground' };
  const headers = sheet.headers.list.map((header) => ({
    id: header.id,
    title:
      header.ends[0] === 'USB end' && sheet.headers.list.length < 3
        ? `${header.title}, from the USB end`
        : header.title.replace('digital header ', '').replace(' header', ''),
    columns: headerPins(sheet, header.id).map((pin) => pinColumn(board, pin)),
  }));
  return [{ id: 'rails', title: 'rails', columns: [ground, ...rails] }, ...headers];
}
