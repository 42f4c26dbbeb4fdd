import { getOrThrow } from '@roof-chart/core/collections/orThrow';
import compression from 'compression';
import express, { type Express, type RequestHandler, Router } from 'express';
import { type Logger, pino } from 'pino';
import { ApiError, errorHandler } from './api/apiError';
import { archiveRoutes } from './api/archiveRoutes';
import type { Catalogue } from '@roof-chart/api/catalogue';
import { openApi } from '@roof-chart/api/openApi';
import type { SessionState } from '@roof-chart/api/session';
import { planRoutes } from './api/planRoutes';
import { sheetRoutes } from './api/sheetRoutes';
import type { SheetRepository } from './store/sheetRepository';
import type { PlanStore } from './store/planStore';
import { hostGuard, jsonOnly, policy } from './web/guards';
import { LIMITS, type Limits, rateLimits } from './web/limits';
import { webPages } from './web/pages';

import { requestLog } from './web/requestLog';
import { type Secrets, signIn } from './web/signIn';

export interface AppParts {
  readonly store: PlanStore;
  readonly shelf: SheetRepository;
  /** Folder of the built web application; without it only the API is served. */
  readonly webFolder?: string;
  readonly log?: Logger;
  readonly limits?: Limits;
  /** Accepted host names besides the loopback ones. */
  readonly hostNames?: readonly string[];
  /** Required if set, also on loopback. */
  readonly secrets?: Secrets;
}

/** A plan file has its sheets with it, and going back to a large version is one edit of thousands. */
const bodyLimit = (path: string): string => (path.endsWith('/edits') ? '4mb' : path.endsWith('/plans/file') ? '8mb' : '1mb');
const parsers = new Map(['1mb', '4mb', '8mb'].map((limit) => [limit, express.json({ limit, strict: true })]));
const jsonBody: RequestHandler = (req, res, next) => getOrThrow(parsers, bodyLimit(req.path))(req, res, next);

/** Where other devices reach the server: by its IPv4 addresses, which every phone finds, then by its names. */
function networkAddresses(names: readonly string[], port: number | undefined): readonly string[] {
  const isIPv4 = (name: string) => /^\d+(\.\d+){3}$/.test(name);
  const reachable = names.filter((name) => !name.startsWith('[') && !name.startsWith('169.254.'));
  return [...reachable.filter(isIPv4), ...reachable.filter((name) => !isIPv4(name))].map((name) => `http://${name}:${port ?? 80}`);
}

function apiRoutes({ store, shelf, secrets, hostNames = [], limits = LIMITS }: AppParts): Router {
  const api = Router();
  api.use((_req, res, next) => {
    res.set('Cache-Control', 'no-store');
    next();
  });
  api.use(...rateLimits(limits), jsonOnly);
  api.get('/health', (_req, res) => void res.json({ ok: true }));
  api.get(
    '/session',
    (req, res) =>
      void res.json({
        required: secrets !== undefined,
        addresses: networkAddresses(hostNames, req.socket.localPort),
      } satisfies SessionState),
  );
  // Before a large body is read from a client that is not signed in.
  if (secrets) api.use(express.json({ limit: '4kb', strict: true, type: (req) => (req.url ?? '') === '/session' }), signIn(secrets));
  api.use(jsonBody);
  api.get('/openapi.json', (_req, res) => void res.json(openApi()));
  api.get('/catalogue', (_req, res) => void res.json({ sheets: shelf.list, own: shelf.own } satisfies Catalogue));
  api.use('/sheets', sheetRoutes(shelf));
  api.use('/plans', planRoutes(store, shelf));
  api.use('/archive', archiveRoutes(store, shelf));
  api.use((req, _res, next) =>
    next(
      new ApiError(404, {
        code: 'no-such-route',
        message: 'No such endpoint.',
        path: 'url',
        got: `${req.method} ${req.path}`.slice(0, 200),
      }),
    ),
  );
  return api;
}

/** The application without a port, so that tests can mount it. */
export function createApp(parts: AppParts): Express {
  const { webFolder, hostNames, log = pino({ level: 'silent' }) } = parts;
  const app = express();
  app.disable('x-powered-by');
  app.set('etag', false);
  // Behind a proxy on this machine the address of a guesser and whether TLS was used come from its headers.
  app.set('trust proxy', 'loopback');
  app.use(requestLog(log), policy, hostGuard(hostNames));
  // An event stream must not wait in a compressor's buffer.
  app.use(compression({ filter: (req, res) => !/\/(events|archive)$/.test(req.path) && compression.filter(req, res) }));
  app.use('/api', apiRoutes(parts));
  if (webFolder) app.use(webPages(webFolder));
  app.use(errorHandler((error) => log.error({ err: error }, 'unforeseen')));
  return app;
}
