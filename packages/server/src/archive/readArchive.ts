import { atOrThrow, firstOrThrow, getOrThrow } from '@roof-chart/core/collections/orThrow';
import { randomUUID } from 'node:crypto';
import { strFromU8, unzipSync } from 'fflate';
import Joi from 'joi';
import { isDeepStrictEqual } from 'node:util';
import { nameSchema } from '@roof-chart/core/plan/planSchema';
import type { Plan } from '@roof-chart/core/plan/plan';
import { type PlanFile, readPlanFile } from '@roof-chart/core/plan/planFile';
import { readSheet } from '@roof-chart/core/sheets/readSheet';
import { checksum } from '../store/checksum';
import { importFault, ImportRefused, importWithin, keepSheets } from '../store/importPlan';
import type { ArchiveReport } from '@roof-chart/api/archiveReport';
import type { PlanStore } from '../store/planStore';
import { CheckpointEntity, PlanEntity } from '../store/rows';
import type { SheetRepository } from '../store/sheetRepository';
import { DamagedDocument, storedPlan } from '../store/storedDocument';
import type { Statements } from '../store/transactions';
import { ARCHIVE_FORMAT, ARCHIVE_VERSION } from './writeArchive';

/** Whether a stored document is a plan, in whatever order and under whatever names of earlier versions it was written; a damaged one is none. */
function holds(row: { readonly document: string; readonly checksum: string }, planId: string, plan: unknown): boolean {
  try {
    return isDeepStrictEqual(storedPlan(planId, row), plan);
  } catch (error) {
    if (error instanceof DamagedDocument) return false;
    throw error;
  }
}

/** What an archive may unpack to. */
const LIMITS = { bytes: 256 * 2 ** 20, entries: 100_000, entryBytes: 16 * 2 ** 20 } as const;
const WANTED = /^(manifest\.json|(plans|deleted-plans|versions|sheets)\/[A-Za-z0-9@/_-]{1,200}\.json)$/;

/** A file that is no archive of ours, or too large a one. */
export class ArchiveRefused extends Error {}

const manifestSchema = Joi.object({
  format: Joi.valid(ARCHIVE_FORMAT).required(),
  formatVersion: Joi.number().required(),
  archived: Joi.array().items(Joi.string()),
})
  .unknown()
  .required();
const versionSchema = Joi.object({
  name: nameSchema.required(),
  revision: Joi.number().integer().min(1).required(),
  at: Joi.string().isoDate().required(),
  plan: Joi.object().unknown().required(),
});

/** @throws ArchiveRefused when the bytes are no archive, or unpack to more than is taken */
function unpack(bytes: Uint8Array): ReadonlyMap<string, string> {
  let total = 0;
  let files;
  try {
    files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!WANTED.test(name)) return false;
        total += originalSize;
        if (originalSize > LIMITS.entryBytes || total > LIMITS.bytes) throw new ArchiveRefused('The archive is too large when unpacked.');
        return true;
      },
    });
  } catch (error) {
    if (error instanceof ArchiveRefused) throw error;
    throw new ArchiveRefused('Not a ZIP file, or damaged.');
  }
  const entries = Object.entries(files);
  if (entries.length > LIMITS.entries) throw new ArchiveRefused('The archive has too many files.');
  return new Map(entries.map(([name, data]) => [name, strFromU8(data)]));
}

function parse(text: string): unknown {
  try {
    return JSON.parse(text.replace(/^\uFEFF/, '')) as unknown;
  } catch {
    return undefined;
  }
}

/** Imports an archive: own sheets, plans, deleted plans, saved versions. Each document is imported completely or not at all; one that
 *  cannot be imported is skipped and listed. An existing plan that differs gets a new ID.
 *  @throws ArchiveRefused if the file is not a Roof Chart archive; nothing is changed */
export function readArchive(store: PlanStore, shelf: SheetRepository, bytes: Uint8Array): ArchiveReport {
  const files = unpack(bytes);
  const manifest = manifestSchema.validate(parse(files.get('manifest.json') ?? ''), { convert: false });
  if (manifest.error) throw new ArchiveRefused('Not a Roof Chart archive: the manifest is missing.');
  if ((manifest.value as { formatVersion: number }).formatVersion > ARCHIVE_VERSION)
    throw new ArchiveRefused('The archive was written by a later version of Roof Chart.');
  const { archived = [] } = manifest.value as { archived?: readonly string[] };
  return new ArchiveReader(store, shelf, files, new Set(archived)).read();
}

class ArchiveReader {
  readonly #skipped: { path: string; fault: string }[] = [];
  /** The id here of a plan in the archive. */
  readonly #ids = new Map<string, string>();
  readonly #counts = { plans: 0, versions: 0, sheets: 0, same: 0 };

  constructor(
    private readonly store: PlanStore,
    private readonly shelf: SheetRepository,
    private readonly files: ReadonlyMap<string, string>,
    /** The plans that are archived, by their ids in the archive. */
    private readonly archived: ReadonlySet<string>,
  ) {}

  read(): ArchiveReport {
    for (const [path, document] of this.#under('sheets/')) this.#sheet(path, document);
    for (const [path, document] of this.#under('plans/')) this.#plan(path, document, false);
    for (const [path, document] of this.#under('deleted-plans/')) this.#plan(path, document, true);
    for (const [path, document] of this.#under('versions/')) this.#version(path, document);
    return { ...this.#counts, skipped: this.#skipped };
  }

  /** In the order of versions, so that those of one sheet are kept one after another. */
  #under(folder: string): readonly (readonly [string, unknown])[] {
    const paths = [...this.files.keys()].filter((path) => path.startsWith(folder));
    return paths.sort(new Intl.Collator('en', { numeric: true }).compare).map((path) => [path, parse(getOrThrow(this.files, path))]);
  }

  #skip(path: string, fault: string): void {
    this.#skipped.push({ path, fault });
  }

  #sheet(path: string, document: unknown): void {
    const read = readSheet(document);
    if (!read.ok) return this.#skip(path, `${firstOrThrow(read.faults).path}: ${firstOrThrow(read.faults).fault}`);
    const kept = this.shelf.keep([read.sheet]);
    if (kept.kind === 'taken') this.#skip(path, `the ID ${kept.id} is used by another sheet`);
    else if (firstOrThrow(kept.sheets).how !== 'same') this.#counts.sheets += 1;
  }

  /** Runs one write; a document that cannot be kept is skipped, a full disk ends the whole. */
  #write<T>(path: string, work: (statements: Statements) => T): T | undefined {
    try {
      return this.store.transactions.write(work);
    } catch (error) {
      this.shelf.load();
      if (!(error instanceof ImportRefused)) throw error;
      this.#skip(path, error.message);
      return undefined;
    }
  }

  #planFile(path: string, document: unknown): PlanFile | undefined {
    const read = readPlanFile(document);
    const fault = read.ok ? importFault(this.shelf, read.file) : read;
    if (!fault && read.ok) return read.file;
    this.#skip(path, fault ? `${fault.path}: ${fault.fault}` : 'not a plan');
    return undefined;
  }

  #plan(path: string, document: unknown, deleted: boolean): void {
    const file = this.#planFile(path, document);
    if (!file) return;
    if (this.#isThere(file.plan)) {
      this.#ids.set(file.plan.id, file.plan.id);
      this.#counts.same += 1;
      return;
    }
    const imported = this.#write(path, (statements) => {
      const made = importWithin(statements, this.store, this.shelf, file);
      const at = this.store.time();
      const [archivedAt, deletedAt] = [this.archived.has(file.plan.id) ? at : null, deleted ? at : null];
      statements.update(PlanEntity, { id: made.stored.plan.id }, { archivedAt, deletedAt });
      return made;
    });
    if (!imported) return;
    this.#ids.set(file.plan.id, imported.stored.plan.id);
    this.#counts.plans += 1;
  }

  /** Whether this server has the very plan, deleted or not. */
  #isThere(plan: Plan): boolean {
    const row = this.store.transactions.statements.first(PlanEntity, { id: plan.id });
    // Compared as it would be stored: a field that is undefined is one that is absent.
    return row !== undefined && isDeepStrictEqual(JSON.parse(JSON.stringify(plan)), storedPlan(row.id, row));
  }

  #version(path: string, document: unknown): void {
    const { error, value } = versionSchema.validate(document, { convert: false });
    if (error) return this.#skip(path, error.message);
    const { name, revision, at, plan } = value as { name: string; revision: number; at: string; plan: unknown };
    const planId = this.#ids.get(atOrThrow(path.split('/'), 1));
    if (planId === undefined) return this.#skip(path, 'its plan was not imported');
    const file = this.#planFile(path, plan);
    if (!file) return;
    this.#write(path, (statements) => {
      const stored = JSON.stringify({ ...keepSheets(statements, this.shelf, file).plan, id: planId });
      const same = statements.find(CheckpointEntity, { planId, name }).some((row) => holds(row, planId, JSON.parse(stored)));
      if (same) return;
      statements.insert(CheckpointEntity, { id: randomUUID(), planId, name, revision, at, document: stored, checksum: checksum(stored) });
      this.#counts.versions += 1;
    });
  }
}
