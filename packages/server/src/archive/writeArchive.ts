import { beforeFirst, orThrow } from '@roof-chart/core/collections/orThrow';
import { once } from 'node:events';
import { PassThrough, type Readable } from 'node:stream';
import { strToU8, Zip, ZipDeflate } from 'fflate';
import { planDocument } from '@roof-chart/core/plan/planFile';
import { checksum } from '../store/checksum';
import { CheckpointEntity, PlanEntity, SheetEntity } from '../store/rows';
import type { SheetSource } from '../store/sheetRepository';
import { DamagedDocument, storedPlan } from '../store/storedDocument';
import type { Statements } from '../store/transactions';

export const ARCHIVE_FORMAT = 'roof-chart-archive';
export const ARCHIVE_VERSION = 1;

const READ_ME = `All data of this Roof Chart server, as JSON files.

plans/ID.json              a plan with the sheets it uses
deleted-plans/ID.json      a deleted plan that can be restored
versions/PLAN/ID.json      a saved version
sheets/ID@VERSION.json     a board or part sheet of your own
damaged/                   the raw text of documents that could not be read
manifest.json              list of the content, and which plans are archived

npm run import -- FILE imports the archive; identical plans are skipped.
`;

interface Entry {
  readonly path: string;
  readonly text: string;
}

const pretty = (value: unknown): string => `${JSON.stringify(value, null, 2)}\n`;

/** A document of a plan, or its text as it was found where it cannot be read. */
function entryOf(
  folder: string,
  name: string,
  row: { id: string; document: string; checksum: string },
  shape: (text: string) => string,
): Entry {
  try {
    return { path: `${folder}/${name}.json`, text: shape(row.document) };
  } catch (error) {
    if (!(error instanceof DamagedDocument)) throw error;
    return { path: `damaged/${folder}-${name.replace('/', '-')}.txt`, text: row.document };
  }
}

/** Every document, one after another: the archive never holds all of them in memory. */
export function* archiveEntries(statements: Statements, shelf: SheetSource, now: Date): Generator<Entry> {
  yield { path: 'README.txt', text: READ_ME };
  const counts: Record<string, number> = {};
  // In the manifest, so that an earlier version imports these plans, too.
  const archived: string[] = [];
  const seen = (entry: Entry): Entry => {
    const folder = beforeFirst(entry.path, '/');
    counts[folder] = (counts[folder] ?? 0) + 1;
    return entry;
  };
  for (const { id } of statements.find(PlanEntity, {}, 'ORDER BY id')) {
    // Rows are only marked as deleted: one that is missing must not be left out of a backup unseen.
    const row = orThrow(statements.first(PlanEntity, { id }), `plan ${id}`);
    const shape = () => pretty(planDocument(storedPlan(id, row), shelf.current));
    if (row.archivedAt !== null) archived.push(id);
    yield seen(entryOf(row.deletedAt === null ? 'plans' : 'deleted-plans', id, row, shape));
  }
  for (const row of statements.find(CheckpointEntity, {}, 'ORDER BY plan_id, at, id')) {
    const { id, planId, name, revision, at } = row;
    const shape = () => pretty({ name, revision, at, plan: planDocument(storedPlan(planId, row), shelf.current) });
    yield seen(entryOf('versions', `${planId}/${id}`, row, shape));
  }
  for (const row of statements.find(SheetEntity, { removedAt: null }, 'ORDER BY id, version')) {
    const isWhole = checksum(row.document) === row.checksum;
    yield seen({ path: isWhole ? `sheets/${row.key}.json` : `damaged/sheets-${row.key}.txt`, text: row.document });
  }
  yield {
    path: 'manifest.json',
    text: pretty({ format: ARCHIVE_FORMAT, formatVersion: ARCHIVE_VERSION, at: now.toISOString(), counts, archived }),
  };
}

/** The entries as a ZIP file, made while it is read; other work is let in between. */
export function zipEntries(entries: Iterable<Entry>): Readable {
  const out = new PassThrough();
  const zip = new Zip((error, chunk, isFinal) => {
    if (error) return void out.destroy(error);
    out.write(chunk);
    if (isFinal) out.end();
  });
  const run = async () => {
    for (const { path, text } of entries) {
      if (out.destroyed) return;
      const file = new ZipDeflate(path, { level: 6 });
      zip.add(file);
      file.push(strToU8(text), true);
      if (out.writableNeedDrain) await once(out, 'drain');
      else await new Promise((resolve) => setImmediate(resolve));
    }
    zip.end();
  };
  run().catch((error: unknown) => out.destroy(error as Error));
  return out;
}
