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
    const [oldest] = this.#ends.keys();
    if (oldest !== undefined && this.#ends.size >= MOST_SESSIONS) this.#ends.delete(oldest);
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

/** The passphrase and the token as digests, with wrong guesses counted. */
class Gate {
  readonly #guesses: GuessLimit;
  readonly #passphrase: Buffer;
  readonly #token: Buffer | undefined;

  constructor({ passphrase, token }: Secrets, now: () => number) {
    this.#guesses = new GuessLimit(now);
    this.#passphrase = digest(passphrase);
    this.#token = token === undefined ? undefined : digest(token);
  }

  /** @throws ApiError 429 while this address, or everybody, has to wait; 401 when it is wrong */
  passphrase(req: Request, res: Response, given: string): void {
    this.#guess(req, res, equal(given, this.#passphrase));
  }

  /** @throws ApiError as for the passphrase; 401 where no token is set */
  token(req: Request, res: Response, given: string | undefined): void {
    if (given === undefined || this.#token === undefined) throw signedOut();
    this.#guess(req, res, equal(given, this.#token));
  }

  /** One guess, counted where it is wrong. */
  #guess(req: Request, res: Response, isRight: boolean): void {
    const wait = this.#guesses.waitMs(req.ip ?? '');
    if (wait > 0) {
      res.set('Retry-After', String(Math.ceil(wait / 1000)));
      throw new ApiError(429, {
        code: 'too-many-guesses',
        message: `Too many wrong passphrases. Try again in ${Math.ceil(wait / 1000)} s.`,
      });
    }
    if (isRight) return this.#guesses.right(req.ip ?? '');
    this.#guesses.wrong(req.ip ?? '');
    throw new ApiError(401, { code: 'wrong-passphrase', message: 'Wrong passphrase.' });
  }
}

const setCookie = (req: Request, res: Response, value: string, maxAge: number) =>
  res.cookie(COOKIE, value, { httpOnly: true, sameSite: 'strict', secure: req.secure, path: '/', maxAge });

/** Authentication: users sign in with the passphrase and get a cookie, programs send the token.
 *  @param now milliseconds, for tests */
export function signIn(secrets: Secrets, now: () => number = Date.now): Router {
  const router = Router();
  const sessions = new Sessions(now);
  const gate = new Gate(secrets, now);
  router.post(
    '/session',
    route((req, res) => {
      const body = valid<SignIn>(signInSchema.required(), req.body, 'body');
      gate.passphrase(req, res, body.passphrase);
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
  router.use((req, res, next) => {
    try {
      const cookie = cookieOf(req);
      if (cookie === undefined || !sessions.isOpen(cookie)) gate.token(req, res, bearerOf(req));
    } catch (error) {
      return next(error);
    }
    return next();
  });
  return router;
}
