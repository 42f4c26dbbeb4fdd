import { createHash, timingSafeEqual } from 'node:crypto';
import type { RequestHandler } from 'express';
import { ApiError } from '../api/apiError';

export const PASSPHRASE_LENGTH = 12;

const digest = (text: string): Buffer => createHash('sha256').update(text).digest();

/** Asks for the passphrase by the browser's own dialog (any user name). Compared in constant time. */
export function passphraseGuard(passphrase: string): RequestHandler {
  const wanted = digest(passphrase);
  return (req, res, next) => {
    const [, encoded] = /^Basic ([A-Za-z0-9+/=]{1,400})$/.exec(req.get('Authorization') ?? '') ?? [];
    const given = encoded
      ? Buffer.from(encoded, 'base64')
          .toString('utf8')
          .replace(/^[^:]*:/, '')
      : '';
    if (timingSafeEqual(digest(given), wanted)) return next();
    res.set('WWW-Authenticate', 'Basic realm="Roof Chart", charset="UTF-8"');
    return next(new ApiError(401, { code: 'passphrase', message: 'This server asks for a passphrase.' }));
  };
}
