import express, { Router } from 'express';
import { archiveEntries, zipEntries } from '../archive/writeArchive';
import { ArchiveRefused, readArchive } from '../archive/readArchive';
import type { PlanStore } from '../store/planStore';
import type { SheetRepository } from '../store/sheetRepository';
import { ApiError, route } from './apiError';

const ZIP = 'application/zip';

/** Everything that the server keeps, as one file in open formats: out and in. */
export function archiveRoutes(store: PlanStore, shelf: SheetRepository): Router {
  const router = Router();

  router.get(
    '/',
    route((_req, res) => {
      const now = new Date(store.time());
      res.type(ZIP).attachment(`roof-chart-${now.toISOString().slice(0, 10)}.zip`);
      const archive = zipEntries(archiveEntries(store.transactions.statements, shelf, now));
      // Cut off, so that half an archive is never taken for a whole one.
      archive.on('error', () => res.destroy());
      res.on('close', () => archive.destroy());
      archive.pipe(res);
    }),
  );

  router.post(
    '/',
    express.raw({ type: ZIP, limit: '64mb' }),
    route((req, res) => {
      if (!Buffer.isBuffer(req.body))
        throw new ApiError(415, { code: 'unsupported', message: 'The body must be a ZIP file.', path: 'Content-Type', expected: ZIP });
      try {
        res.status(201).json(readArchive(store, shelf, req.body));
      } catch (error) {
        if (error instanceof ArchiveRefused) throw new ApiError(400, { code: 'no-archive', message: error.message, path: 'body' });
        throw error;
      }
    }),
  );

  return router;
}
