import { randomBytes } from 'node:crypto';
import type { RequestHandler } from 'express';
import helmet from 'helmet';
import { ApiError } from '../api/apiError';

export const LOOPBACK_NAMES = ['localhost', '127.0.0.1', '[::1]'] as const;

const hostName = (host: string): string => host.replace(/:\d+$/, '').toLowerCase();

/** Accepts only host names of this machine and configured ones, against DNS rebinding.
 *  @param added host names besides the loopback ones */
export function hostGuard(added: readonly string[] = []): RequestHandler {
  const allowed = new Set<string>([...LOOPBACK_NAMES, ...added.map((name) => name.toLowerCase())]);
  return (req, _res, next) => {
    const host = req.get('Host') ?? '';
    if (!allowed.has(hostName(host))) {
      return next(
        new ApiError(403, {
          code: 'foreign-host',
          message: 'Unknown host name: this server accepts only its own names.',
          path: 'Host',
          got: host.slice(0, 100),
        }),
      );
    }
    const origin = req.get('Origin');
    if (origin !== undefined && origin !== `http://${host}` && origin !== `https://${host}`) {
      return next(
        new ApiError(403, {
          code: 'foreign-origin',
          message: 'Cross-origin requests are not accepted.',
          path: 'Origin',
          got: origin.slice(0, 100),
        }),
      );
    }
    return next();
  };
}

/** Bodies are JSON and say so, which other pages cannot send without asking first. */
export const jsonOnly: RequestHandler = (req, _res, next) => {
  const hasBody = Number(req.get('Content-Length') ?? 0) > 0 || req.get('Transfer-Encoding') !== undefined;
  if (hasBody && !req.is(['application/json', 'application/zip'])) {
    return next(
      new ApiError(415, {
        code: 'unsupported',
        message: 'The request body must be application/json, or application/zip for an archive.',
        path: 'Content-Type',
        expected: 'application/json',
      }),
    );
  }
  return next();
};

/** A fresh nonce for the page's inline style sheet, and the strict policy around it. */
export const policy: RequestHandler = (req, res, next) => {
  const nonce = randomBytes(16).toString('base64');
  res.locals['nonce'] = nonce;
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'"],
        workerSrc: ["'self'"],
        styleSrc: ["'self'", `'nonce-${nonce}'`],
        imgSrc: ["'self'", 'data:'],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        manifestSrc: ["'self'"],
        baseUri: ["'none'"],
        formAction: ["'none'"],
        frameAncestors: ["'none'"],
      },
    },
    // Plain HTTP on loopback: a strict-transport header would lock the browser out.
    strictTransportSecurity: false,
    referrerPolicy: { policy: 'no-referrer' },
  })(req, res, next);
};
