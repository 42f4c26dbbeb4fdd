import { createHash, randomBytes, timingSafeEqual } from 'node:crypto';
import { type Request, type Response, Router } from 'express';
import { MAX_PASSPHRASE, type SignIn, signInSchema } from '@roof-chart/api/session';
import { ApiError, route, valid } from '../api/apiError';
import { GuessLimit } from './guessLimit';

export const PASSPHRASE_LENGTH = 12;
const SESSION_MS = 30 * 24 * 60 * 60 * 1000;
const MOST_SESSIONS = 1000;
const COOKIE = 'roof-chart-session';

/** The credentials of a protected server. */
export interface Secrets {
  readonly passphrase: string;
  /** For programs, as `Authorization: Bearer …`. */
  readonly token?: string;
}

const digest = (text: string): Buffer => createHash('sha256').update(text).digest();

/** Compared in constant time, whatever the lengths. */
const equal = (given: string, wanted: Buffer): boolean => timingSafeEqual(digest(given), wanted);

/** @throws Error in one sentence when a passphrase or token cannot protect anything */
export function checkSecrets({ passphrase, token }: { readonly passphrase?: string; readonly token?: string }): void {
  if (passphrase !== undefined && passphrase.trim().length < PASSPHRASE_LENGTH)
    throw new Error(`ROOF_CHART_PASSPHRASE must have at least ${PASSPHRASE_LENGTH} characters, not counting leading and trailing spaces.`);
  if (passphrase !== undefined && passphrase.length > MAX_PASSPHRASE)
    throw new Error(`ROOF_CHART_PASSPHRASE must have at most ${MAX_PASSPHRASE} characters.`);
  if (token !== undefined && token.trim().length < 2 * PASSPHRASE_LENGTH)
    throw new Error(`ROOF_CHART_TOKEN must have at least ${2 * PASSPHRASE_LENGTH} characters.`);
  if (token !== undefined && passphrase === undefined)
    throw new Error('ROOF_CHART_TOKEN is set without ROOF_CHART_PASSPHRASE: set both, or neither.');
}

const cookieOf = (req: Request): string | undefined =>
  new RegExp(`(?:^|;\\s*)${COOKIE}=([A-Za-z0-9_-]{43})(?:;|$)`).exec(req.get('Cookie') ?? '')?.[1];

const bearerOf = (req: Request): string | undefined => /^Bearer (\S{1,1000})$/.exec(req.get('Authorization') ?? '')?.[1];

/** Who is signed in, in memory: after a restart of the server everybody signs in again. */
class Sessions {
  /** Ends by the digest of a session's secret, oldest first: the memory never holds what a cookie holds. */
  readonly #ends = new Map<string, number>();

  constructor(private readonly now: () => number) {}

  begin(): string {
    const secret = randomBytes(32).toString('base64url');
    if (this.#ends.size >= MOST_SESSIONS) this.#ends.delete(this.#ends.keys().next().value!);
    this.#ends.set(digest(secret).toString('hex'), this.now() + SESSION_MS);
    return secret;
  }

  isOpen(secret: string): boolean {
    return (this.#ends.get(digest(secret).toString('hex')) ?? 0) > this.now();
  }

  end(secret: string): void {
    this.#ends.delete(digest(secret).toString('hex'));
  }
}

const signedOut = () => new ApiError(401, { code: 'signed-out', message: 'Sign in with the server’s passphrase.' });

/** Authentication: users sign in with the passphrase and get a cookie, programs send the token.
 *  @param now milliseconds, for tests */
export function signIn({ passphrase, token }: Secrets, now: () => number = Date.now): Router {
  const router = Router();
  const sessions = new Sessions(now);
  const guesses = new GuessLimit(now);
  const wanted = digest(passphrase);
  const wantedToken = token === undefined ? undefined : digest(token);

  const setCookie = (req: Request, res: Response, value: string, maxAge: number) =>
    res.cookie(COOKIE, value, { httpOnly: true, sameSite: 'strict', secure: req.secure, path: '/', maxAge });

  /** One guess, counted where it is wrong.
   *  @throws ApiError 429 while this address, or everybody, has to wait; 401 when it is wrong */
  const guess = (req: Request, res: Response, isRight: () => boolean) => {
    const wait = guesses.waitMs(req.ip ?? '');
    if (wait > 0) {
      res.set('Retry-After', String(Math.ceil(wait / 1000)));
      throw new ApiError(429, {
        code: 'too-many-guesses',
        message: `Too many wrong passphrases. Try again in ${Math.ceil(wait / 1000)} s.`,
      });
    }
    if (isRight()) return guesses.right(req.ip ?? '');
    guesses.wrong(req.ip ?? '');
    throw new ApiError(401, { code: 'wrong-passphrase', message: 'Wrong passphrase.' });
  };

  router.post(
    '/session',
    route((req, res) => {
      const body = valid<SignIn>(signInSchema.required(), req.body, 'body');
      guess(req, res, () => equal(body.passphrase, wanted));
      setCookie(req, res, sessions.begin(), SESSION_MS);
      res.status(204).end();
    }),
  );

  router.delete(
    '/session',
    route((req, res) => {
      const cookie = cookieOf(req);
      if (cookie !== undefined) sessions.end(cookie);
      setCookie(req, res, '', 0);
      res.status(204).end();
    }),
  );

  /** @throws ApiError if not signed in */
  const check = (req: Request, res: Response) => {
    const cookie = cookieOf(req);
    if (cookie !== undefined && sessions.isOpen(cookie)) return;
    const bearer = bearerOf(req);
    if (bearer === undefined || wantedToken === undefined) throw signedOut();
    guess(req, res, () => equal(bearer, wantedToken));
  };
  router.use((req, res, next) => {
    try {
      check(req, res);
    } catch (error) {
      return next(error);
    }
    return next();
  });
  return router;
}
