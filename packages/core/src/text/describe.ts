import { entryOrThrow, firstOrThrow } from '../collections/orThrow';
import { counted, formatAddress, formatBytes, formatSi } from '../quantity/format';
import { sourceLine } from '../sheets/source';
import { fieldText } from './fieldText';
import { listText, memberText, placementText, terminalText } from './names';
import { boardSheet, partSheet, type SheetRef, type Sheets } from '../sheets/sheetIndex';
import { boardOf, partOf } from '../plan/edit';
import { type Plan, splitKey } from '../plan/plan';
import type { Data, Datum, Finding, Place, Remedy } from '../checks/engine/check';
import { checkOf } from '../checks/engine/registry';

/** IDs and numbers become text here; nothing in the core depends on these texts. */

function sayRail(plan: Plan, sheets: Sheets, id: string): string {
  return boardOf(plan, sheets)?.sheet.rails.list.find((rail) => rail.id === id)?.label ?? id;
}

/** Six names and the number of the rest, so that a bus of twenty parts does not fill the screen. */
function sayMany(names: readonly string[]): string {
  const most = 6;
  return names.length <= most ? listText(names) : `${names.slice(0, most).join(', ')} and ${names.length - most} more`;
}

function sayDatum(plan: Plan, sheets: Sheets, datum: Datum): string {
  switch (datum.is) {
    case 'terminal':
      return terminalText(plan, sheets, datum.key);
    case 'terminals':
      return sayMany(datum.keys.map((key) => terminalText(plan, sheets, key)));
    case 'labels':
      return sayMany(
        datum.keys.map((key) => {
          const { placement, terminal } = splitKey(key);
          return partOf(plan, placement, sheets)?.terminals.get(terminal)?.label ?? terminal;
        }),
      );
    case 'pin':
      return boardOf(plan, sheets)?.pins.get(datum.pin)?.label ?? datum.pin;
    case 'pins':
      return listText([...new Set(datum.pins)].map((pin) => boardOf(plan, sheets)?.pins.get(pin)?.label ?? pin));
    case 'placement':
      return placementText(plan, datum.id);
    case 'member':
      return memberText(plan, datum.id);
    case 'placements':
      return sayMany(datum.ids.map((id) => placementText(plan, id)));
    case 'controller':
      return boardOf(plan, sheets)?.controllers.get(datum.id)?.title ?? datum.id;
    case 'rail':
      return sayRail(plan, sheets, datum.rail);
    case 'address':
      return formatAddress(datum.value);
    case 'addresses':
      return listText(datum.values.map(formatAddress));
    case 'volts':
      return formatSi(datum.value, 'V');
    case 'quantity':
      return datum.unit === 'B' ? formatBytes(datum.value) : formatSi(datum.value, datum.unit);
    case 'share':
      return `${Math.round(datum.value * 100)} %`;
    case 'segment': {
      const bus = boardOf(plan, sheets)?.controllers.get(datum.controller)?.title ?? datum.controller;
      if (datum.behind === undefined) return bus;
      return `${bus} behind ${placementText(plan, datum.behind)}${datum.channel === undefined ? '' : `, channel ${datum.channel}`}`;
    }
    case 'count':
      return datum.noun === undefined ? String(datum.value) : counted(datum.value, datum.noun);
    case 'facts':
      return factGroupsText(sheets, datum.of).join('; ');
    case 'parts': {
      const titles = [...new Set(datum.ids)].map((id) => {
        const count = datum.ids.filter((other) => other === id).length;
        const title = sheets.parts.get(id)?.sheet.title ?? id;
        return count > 1 ? `${count} × ${title}` : title;
      });
      return listText(titles);
    }
    case 'words':
      return datum.text;
  }
}

/** The groups of a sheet within a sentence: "Supply" as "supply", "LEDs" unchanged. */
function sayGroups(kind: 'board' | 'part', groups: readonly string[]): string {
  const labels = groups.map((group) => fieldText(kind, '', group)?.label ?? group);
  return listText(labels.map((label) => (/^[A-Z][a-z]/.test(label) ? `${firstOrThrow(label).toLowerCase()}${label.slice(1)}` : label)));
}

/** The place of a finding in short: a pin, a terminal, a rail, a bus or a part; `''` if it concerns the whole plan or the title names it.
 *  @example sayPlace(plan, sheets, { pins: ['GP4'], terminals: ['oled:SDA'] }, 'Pin conflict') // 'GP4' */
export function placeText(plan: Plan, sheets: Sheets, { pins, terminals, rails, bus, placements }: Place, title: string): string {
  const board = boardOf(plan, sheets);
  const [pin, terminal, rail, placement] = [pins?.[0], terminals?.[0], rails?.[0], placements?.[0]];
  const names = [
    ...(pin === undefined ? [] : [board?.pins.get(pin)?.label ?? pin]),
    ...(terminal === undefined ? [] : [terminalText(plan, sheets, terminal)]),
    ...(rail === undefined ? [] : [sayRail(plan, sheets, rail)]),
    ...(bus === undefined ? [] : [board?.controllers.get(bus)?.title ?? bus]),
    ...(placement === undefined ? [] : [placementText(plan, placement)]),
  ];
  const buses = [...(board?.controllers.values() ?? [])].map((controller) => controller.title);
  return [...names, ...buses].some((name) => title.includes(name)) ? '' : (names[0] ?? '');
}

/** Sheets with the groups of facts that a finding is about, a line each. */
export const factGroupsText = (
  sheets: Sheets,
  of: readonly { readonly sheet: SheetRef; readonly groups: readonly string[] }[],
): readonly string[] =>
  of.map(({ sheet, groups }) => `${saySheet(sheets, sheet)}: ${sayGroups(boardSheet(sheets, sheet) ? 'board' : 'part', groups)}`);

function saySheet(sheets: Sheets, ref: SheetRef): string {
  return (boardSheet(sheets, ref) ?? partSheet(sheets, ref))?.sheet.title ?? ref.id;
}

/** Fills a template with its data.
 *  @throws Error if the template names a missing datum, which is a bug in the check */
export function fillTemplate(plan: Plan, sheets: Sheets, template: string, data: Data): string {
  return template.replace(/\{(\w+)\}/g, (_, name: string) => {
    const datum = data[name];
    if (!datum) throw new Error(`No datum {${name}} for the text "${template}"`);
    return sayDatum(plan, sheets, datum);
  });
}

export interface FindingText {
  readonly title: string;
  readonly text: string;
  readonly why: string;
  readonly source: string | undefined;
}

/** A finding in words. */
export function describeFinding(plan: Plan, sheets: Sheets, finding: Finding): FindingText {
  const message = entryOrThrow(checkOf(finding.code).messages, finding.message);
  const say = (template: string) => fillTemplate(plan, sheets, template, finding.data);
  return {
    title: say(message.title),
    text: say(message.text),
    why: say(message.why),
    source: finding.source && sourceLine(finding.source),
  };
}

/** A remedy's button text. */
export function describeFix(plan: Plan, sheets: Sheets, code: string, remedy: Remedy): string {
  return fillTemplate(plan, sheets, entryOrThrow(checkOf(code).remedies, remedy.label), remedy.data).replace(/: $/, '');
}
