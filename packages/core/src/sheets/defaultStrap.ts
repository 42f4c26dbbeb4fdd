import type { Sheets } from './sheetIndex';

/** The sheet's default state of a part's strap.
 *  @throws Error when the part or the strap is not known */
export function defaultStrap(sheets: Sheets, part: string, strap: string): string {
  const found = sheets.parts.get(part)?.sheet.bus.straps?.find((s) => s.id === strap);
  if (!found) throw new Error(`No strap ${strap} on part ${part}`);
  return found.default;
}
