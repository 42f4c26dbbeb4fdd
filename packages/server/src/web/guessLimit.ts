const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 60_000;
/** Wrong guesses that cost nothing: people mistype. */
const FREE = 3;
/** From all addresses together more is allowed, so that one guesser does not lock everybody out at once. */
const FREE_OF_ALL = 30;
const MOST_ADDRESSES = 10_000;

interface Count {
  wrong: number;
  last: number;
}

/** How long to wait after so many wrong guesses, in milliseconds: doubling, up to a minute. */
const delay = (wrong: number, free: number): number =>
  wrong < free ? 0 : Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** Math.min(20, wrong - free));

/** Throttles passphrase guesses, per address and in total. */
export class GuessLimit {
  readonly #addresses = new Map<string, Count>();
  readonly #all: Count = { wrong: 0, last: 0 };

  /** @param now milliseconds */
  constructor(private readonly now: () => number) {}

  /** How long this address has to wait, in milliseconds; 0 where it may try. */
  waitMs(address: string): number {
    const own = this.#addresses.get(address);
    const ofOwn = own ? own.last + delay(own.wrong, FREE) - this.now() : 0;
    return Math.max(0, ofOwn, this.#all.last + delay(this.#all.wrong, FREE_OF_ALL) - this.now());
  }

  wrong(address: string): void {
    const own = this.#addresses.get(address) ?? { wrong: 0, last: 0 };
    this.#addresses.delete(address);
    const [oldest] = this.#addresses.keys();
    if (oldest !== undefined && this.#addresses.size >= MOST_ADDRESSES) this.#addresses.delete(oldest);
    this.#addresses.set(address, { wrong: own.wrong + 1, last: this.now() });
    this.#all.wrong += 1;
    this.#all.last = this.now();
  }

  right(address: string): void {
    this.#addresses.delete(address);
    this.#all.wrong = 0;
  }
}
