import { firstOrThrow } from '@roof-chart/core/collections/orThrow';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import type Joi from 'joi';
import type { ApiProblem } from '@roof-chart/api/problem';
import { DamagedDocument } from '../store/storedDocument';
import { unsafePlace } from '@roof-chart/core/sheets/unsafePlace';

/** A request that cannot be fulfilled. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly problem: ApiProblem,
    readonly extra: Readonly<Record<string, unknown>> = {},
  ) {
    super(problem.message);
  }
}

/** A value that passed a schema.
 *  @throws ApiError 400 naming the first place that failed */
export function valid<T>(schema: Joi.Schema, value: unknown, where: string): T {
  const unsafe = unsafePlace(value);
  if (unsafe !== undefined)
    throw new ApiError(400, {
      code: 'invalid',
      message: 'Forbidden key or nesting depth.',
      path: `${where}.${unsafe.slice(0, 200)}`,
    });
  const result = schema.validate(value, { convert: false, abortEarly: true });
  if (!result.error) return result.value as T;
  const detail = firstOrThrow(result.error.details);
  const path = [where, ...detail.path].join('.');
  // What has no name within the value is named by its part of the request.
  const named = detail.path.length === 0 ? detail.message.replace('"value"', `"${where}"`) : detail.message;
  const message = named.length > 300 ? `${named.slice(0, 300)}…` : named;
  throw new ApiError(400, { code: 'invalid', message, path });
}

/** A route that may fail, its failure handed on to the error handler. */
export function route(handle: (req: Request, res: Response) => Promise<void> | void): RequestHandler {
  return async (req, res, next) => {
    try {
      await handle(req, res);
    } catch (error) {
      next(error);
    }
  };
}

const BODY_LIMITS = 'at most 1 MB; 4 MB of edits, 8 MB of a plan file, 64 MB of an archive';

/** The body parser's errors carry a type; the words are ours. */
const PARSER_PROBLEMS: Readonly<Record<string, { readonly status: number; readonly problem: ApiProblem }>> = {
  'entity.parse.failed': { status: 400, problem: { code: 'malformed-json', message: 'The request body is not valid JSON.', path: 'body' } },
  'entity.too.large': {
    status: 413,
    problem: { code: 'too-large', message: 'The request body is too large for this endpoint.', path: 'body', expected: BODY_LIMITS },
  },
  'encoding.unsupported': {
    status: 415,
    problem: { code: 'unsupported', message: 'The content encoding is not supported.', path: 'body' },
  },
  'charset.unsupported': {
    status: 415,
    problem: { code: 'unsupported', message: 'The character set is not supported.', path: 'body' },
  },
};

/** The disk’s own failures: nothing was changed, and the client may try again later. */
const DISK_FULL = new Set(['SQLITE_FULL', 'ENOSPC', 'EDQUOT', 'EFBIG']);

const codeOf = (error: unknown): string => {
  const { code, driverError } = (error ?? {}) as { code?: string; driverError?: { code?: string } };
  return driverError?.code ?? code ?? '';
};

/** Failures that are not the request's fault, by the code of system or database. */
function ownTrouble(error: unknown): { readonly status: number; readonly problem: ApiProblem } {
  const code = codeOf(error);
  if (DISK_FULL.has(code) || code.startsWith('SQLITE_IOERR'))
    return {
      status: 507,
      problem: { code: 'disk-full', message: 'The server’s disk is full. Nothing was changed; free some space and try again.' },
    };
  if (code.startsWith('SQLITE_BUSY') || code.startsWith('SQLITE_LOCKED'))
    return {
      status: 503,
      problem: { code: 'busy', message: 'The database is in use by another program. Nothing was changed; try again in a moment.' },
    };
  if (error instanceof DamagedDocument)
    return {
      status: 500,
      problem: {
        code: 'plan-damaged',
        message:
          'The stored document of this plan is damaged. It is left untouched and other plans are not affected. Restore a backup to recover it.',
      },
    };
  return { status: 500, problem: { code: 'internal', message: 'Internal server error. Nothing was changed.' } };
}

/** What reading a request may fail with: the parser's own errors, a broken compression, a malformed address. */
function requestTrouble(error: unknown): { readonly status: number; readonly problem: ApiProblem } | undefined {
  const { type = '', status } = (error ?? {}) as { type?: string; status?: number };
  const parser = PARSER_PROBLEMS[type];
  if (parser) return parser;
  if (codeOf(error).startsWith('Z_'))
    return {
      status: 400,
      problem: { code: 'malformed-compression', message: 'The compressed body is damaged or truncated.', path: 'body' },
    };
  if (status === 404 || status === 403)
    return { status: 404, problem: { code: 'no-such-route', message: 'No such endpoint.', path: 'url' } };
  if (status === 400) return { status: 400, problem: { code: 'invalid', message: 'Malformed request URL.', path: 'url' } };
  return undefined;
}

/** Turns every failure into JSON; unexpected errors are logged and answered without details. */
export function errorHandler(log: (error: unknown) => void) {
  return (error: unknown, _req: Request, res: Response, next: NextFunction): void => {
    if (res.headersSent) return next(error);
    if (error instanceof ApiError) {
      res.status(error.status).json({ error: error.problem, ...error.extra });
      return;
    }
    const request = requestTrouble(error);
    if (!request) log(error);
    const { status, problem } = request ?? ownTrouble(error);
    res.status(status).json({ error: problem });
  };
}
