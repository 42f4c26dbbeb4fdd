import compression from 'compression';
import express, { type Express, Router } from 'express';
import { type Logger, pino } from 'pino';
import { ApiError, errorHandler } from './api/apiError';
import { OPENAPI } from './api/openapi';
import { planRoutes } from './api/planRoutes';
import { sheetRoutes } from './api/sheetRoutes';
import type { SheetShelf } from './store/sheetShelf';
import type { PlanStore } from './store/planStore';
import { hostGuard, jsonOnly, policy } from './web/guards';
import { LIMITS, type Limits, rateLimits } from './web/limits';
import { webPages } from './web/pages';
import { passphraseGuard } from './web/passphrase';
import { requestLog } from './web/requestLog';

export interface AppParts {
  readonly store: PlanStore;
  readonly shelf: SheetShelf;
  /** Folder of the built web application; without it only the API is served. */
  readonly webFolder?: string;
  readonly log?: Logger;
  readonly limits?: Limits;
  /** Names under which this server may be asked; loopback names where absent. */
  readonly hostNames?: ReadonlySet<string>;
  readonly passphrase?: string;
}

function apiRoutes({ store, shelf, limits = LIMITS }: AppParts): Router {
  const api = Router();
  api.use((_req, res, next) => {
    res.set('Cache-Control', 'no-store');
    next();
  });
  api.use(...rateLimits(limits), jsonOnly, express.json({ limit: '1mb', strict: true }));
  api.get('/health', (_req, res) => void res.json({ ok: true }));
  api.get('/openapi.json', (_req, res) => void res.json(OPENAPI));
  api.get('/catalogue', (_req, res) => void res.json({ sheets: shelf.list, own: shelf.own }));
  api.use('/sheets', sheetRoutes(shelf));
  api.use('/plans', planRoutes(store, shelf));
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
  return api;
}

/** The application without a port, so that tests can mount it. */
export function createApp(parts: AppParts): Express {
  const { webFolder, hostNames, passphrase, log = pino({ level: 'silent' }) } = parts;
  const app = express();
  app.disable('x-powered-by');
  app.set('etag', false);
  app.use(requestLog(log), policy, hostGuard(hostNames));
  if (passphrase !== undefined) app.use(passphraseGuard(passphrase));
  // An event stream must not wait in a compressor's buffer.
  app.use(compression({ filter: (req, res) => !req.path.endsWith('/events') && compression.filter(req, res) }));
  app.use('/api', apiRoutes(parts));
  if (webFolder) app.use(webPages(webFolder));
  app.use(errorHandler((error) => log.error({ err: error }, 'unforeseen')));
  return app;
}
