import compression from 'compression';
import express, { type Express } from 'express';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { indexSheets } from '@roof-chart/core/sheets/sheetIndex';
import { ApiError, errorHandler } from './api/apiError';
import { planRoutes } from './api/planRoutes';
import type { PlanStore } from './store/planStore';
import { hostGuard, jsonOnly, policy } from './web/guards';
import { webPages } from './web/pages';

export interface AppParts {
  readonly store: PlanStore;
  readonly sheets: readonly (BoardSheet | PartSheet)[];
  /** Folder of the built web application; without it only the API is served. */
  readonly webFolder?: string;
  readonly log?: (error: unknown) => void;
}

/** The application without a port, so that tests can mount it. */
export function createApp({ store, sheets, webFolder, log = () => undefined }: AppParts): Express {
  const app = express();
  const index = indexSheets(sheets);
  app.disable('x-powered-by');
  app.set('etag', false);
  app.use(policy, hostGuard(), compression());
  const api = express.Router();
  api.use((_req, res, next) => {
    res.set('Cache-Control', 'no-store');
    next();
  });
  api.use(jsonOnly, express.json({ limit: '1mb', strict: true }));
  api.get('/health', (_req, res) => void res.json({ ok: true }));
  api.get('/catalogue', (_req, res) => void res.json({ sheets }));
  api.use('/plans', planRoutes(store, index));
  api.use((req, _res, next) =>
    next(
      new ApiError(404, {
        code: 'no-such-route',
        message: 'There is nothing at this address.',
        path: 'url',
        got: `${req.method} ${req.path}`.slice(0, 200),
      }),
    ),
  );
  app.use('/api', api);
  if (webFolder) app.use(webPages(webFolder));
  app.use(errorHandler(log));
  return app;
}
