import type { BoardSheet } from './boardSheet';
import { boardSchema } from './boardSchema';
import type { PartSheet } from './partSheet';
import { partSchema } from './partSchema';
import { boardFaults, partFaults, type SheetFault } from './sheetFaults';
import { unsafePlace } from './unsafePlace';
import { upgradeSheet } from './upgradeSheet';

export type SheetRead =
  { readonly ok: true; readonly sheet: BoardSheet | PartSheet } | { readonly ok: false; readonly faults: readonly SheetFault[] };

/** A document from outside as a sheet, or every place where it is not one. */
export function readSheet(document: unknown): SheetRead {
  const unsafe = unsafePlace(document);
  if (unsafe !== undefined) return { ok: false, faults: [{ path: unsafe, fault: 'unknown key or nesting depth' }] };
  const kind = (document as { kind?: unknown } | null)?.kind;
  if (kind !== 'board' && kind !== 'part') return { ok: false, faults: [{ path: 'kind', fault: 'expected "board" or "part"' }] };
  const { error, value } = (kind === 'board' ? boardSchema : partSchema).validate(upgradeSheet(document), {
    abortEarly: false,
    convert: false,
    // Each fault is given with its path, so that the message need not repeat it.
    errors: { label: false },
    messages: { 'any.custom': '{#error.message}' },
  });
  if (error) return { ok: false, faults: error.details.map((d) => ({ path: d.path.join('.'), fault: d.message })) };
  const sheet = value as BoardSheet | PartSheet;
  const faults = sheet.kind === 'board' ? boardFaults(sheet) : partFaults(sheet);
  return faults.length > 0 ? { ok: false, faults } : { ok: true, sheet };
}
