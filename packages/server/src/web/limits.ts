import { rateLimit } from 'express-rate-limit';
import type { RequestHandler } from 'express';

export interface Limits {
  /** Requests a minute from one address. */
  readonly requests: number;
  /** Writes a minute from one address. */
  readonly writes: number;
}

/** Far above what people do, far below what a runaway script does. */
export const LIMITS: Limits = { requests: 24_000, writes: 12_000 };

const limit = (most: number, skip: (method: string) => boolean): RequestHandler =>
  rateLimit({
    windowMs: 60_000,
    limit: most,
    standardHeaders: 'draft-7',
    legacyHeaders: false,
    skip: (req) => skip(req.method),
    // The body is ours, so that a client reads one kind of answer.
    handler: (_req, res) =>
      void res.status(429).json({ error: { code: 'too-many', message: 'Too many requests. Try again in a minute.' } }),
  });

export function rateLimits({ requests, writes }: Limits): readonly RequestHandler[] {
  return [limit(requests, () => false), limit(writes, (method) => method === 'GET' || method === 'HEAD')];
}
