import type { NextFunction, Request, RequestHandler, Response } from 'express';
import type Joi from 'joi';
import { unsafePlace } from '@roof-chart/core/sheets/unsafePlace';

/** What went wrong with a request, for people and programs. */
export interface ApiProblem {
  readonly code: string;
  readonly message: string;
  readonly path?: string;
  readonly expected?: string;
  readonly got?: string;
}

/** A request that cannot be answered as asked. */
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
      message: 'This key or this depth is not allowed.',
      path: `${where}.${unsafe.slice(0, 200)}`,
    });
  const result = schema.validate(value, { convert: false, abortEarly: true });
  if (!result.error) return result.value as T;
  const detail = result.error.details[0]!;
  const path = [where, ...detail.path].join('.');
  const message = detail.message.length > 300 ? `${detail.message.slice(0, 300)}…` : detail.message;
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

/** The body parser's errors carry a type; the words are ours. */
const PARSER_PROBLEMS: Readonly<Record<string, { readonly status: number; readonly problem: ApiProblem }>> = {
  'entity.parse.failed': { status: 400, problem: { code: 'malformed-json', message: 'The body is not valid JSON.', path: 'body' } },
  'entity.too.large': {
    status: 413,
    problem: { code: 'too-large', message: 'The body is larger than 1 MB.', path: 'body', expected: 'at most 1 MB' },
  },
  'encoding.unsupported': { status: 415, problem: { code: 'unsupported', message: 'The body’s encoding is not supported.', path: 'body' } },
  'charset.unsupported': {
    status: 415,
    problem: { code: 'unsupported', message: 'The body’s character set is not supported.', path: 'body' },
  },
};

/** The disk’s own failures: nothing was changed, and the client may try again later. */
const DISK_FULL = new Set(['SQLITE_FULL', 'SQLITE_IOERR_WRITE', 'ENOSPC']);

function isDiskFull(error: unknown): boolean {
  const { code, driverError } = (error ?? {}) as { code?: string; driverError?: { code?: string } };
  return DISK_FULL.has(code ?? '') || DISK_FULL.has(driverError?.code ?? '');
}

/** Turns every failure into JSON; what nobody foresaw is logged and answered without its inside. */
export function errorHandler(log: (error: unknown) => void) {
  return (error: unknown, _req: Request, res: Response, next: NextFunction): void => {
    if (res.headersSent) return next(error);
    if (error instanceof ApiError) {
      res.status(error.status).json({ error: error.problem, ...error.extra });
      return;
    }
    const parser = PARSER_PROBLEMS[(error as { type?: string } | null)?.type ?? ''];
    const status = (error as { status?: number } | null)?.status;
    if (parser) res.status(parser.status).json({ error: parser.problem });
    else if (isDiskFull(error)) {
      log(error);
      res.status(507).json({
        error: { code: 'disk-full', message: 'The server’s disk is full. Nothing was changed; make room, and the edit goes through.' },
      });
    } else if (status === 404 || status === 403)
      res.status(404).json({ error: { code: 'no-such-route', message: 'There is nothing at this address.', path: 'url' } });
    else if (status === 400)
      res.status(400).json({ error: { code: 'invalid', message: 'The address of the request is malformed.', path: 'url' } });
    else {
      log(error);
      res.status(500).json({ error: { code: 'internal', message: 'The server met an error of its own. Nothing was changed.' } });
    }
  };
}
