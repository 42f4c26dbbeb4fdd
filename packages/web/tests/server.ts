/** A request as a server sees it. */
export interface Asked {
  readonly method: string;
  readonly path: string;
  readonly headers: Headers;
  readonly body: string;
  readonly keepalive: boolean;
}

// Addresses without a host are for pages only.
const RealRequest = globalThis.Request;
globalThis.Request = class extends RealRequest {
  constructor(input: string | URL | Request, init?: RequestInit) {
    super(typeof input === 'string' ? new URL(input, 'http://127.0.0.1') : input, init);
  }
};

/** An answer: status and body. `away`: none. */
export type Answer = readonly [number, unknown] | 'away';

/** Takes the place of the server for a test.
 *  @returns what was asked so far */
export function serving(answer: (asked: Asked) => Answer): readonly Asked[] {
  const seen: Asked[] = [];
  jest.spyOn(globalThis, 'fetch').mockImplementation(async (input) => {
    const request = input as Request;
    const { pathname, search } = new URL(request.url);
    const { method, headers, keepalive } = request;
    const asked = { method, path: `${pathname}${search}`, headers, keepalive, body: method === 'POST' ? await request.text() : '' };
    seen.push(asked);
    const said = answer(asked);
    if (said === 'away') throw new TypeError('Failed to fetch');
    return new Response(JSON.stringify(said[1]), { status: said[0], headers: { 'Content-Type': 'application/json' } });
  });
  return seen;
}

/** As `serving`, with these answers one after another, and none afterwards. */
export function answering(...answers: readonly Answer[]): readonly Asked[] {
  const left = [...answers];
  return serving(() => left.shift() ?? 'away');
}
