import { type RefObject, useEffect, useRef } from 'react';

/** A place along one direction, and how much beside it must be in view too, in pixels. */
export interface VisibleRange {
  readonly at: number;
  readonly clear: number;
}

/** The scroll position that makes a place visible beyond a covered start; unchanged if already visible.
 *  @example scrolledTo({ from: 0, size: 100, covered: 20 }, { at: 95, clear: 10 }) // 25 */
export function scrolledTo(
  window: { readonly from: number; readonly size: number; readonly covered: number },
  place: VisibleRange,
): number {
  const shown = window.size - window.covered;
  if (place.at - place.clear < window.from) return Math.max(0, place.at - place.clear);
  if (place.at + place.clear > window.from + shown) return place.at + place.clear - shown;
  return window.from;
}

/** What of a scroller is in view. Read from its events, not from the element: asking the element after an edit
 *  makes the browser lay the whole chart out before its turn. */
class Viewport {
  #left = 0;
  #top = 0;
  #width = 0;
  #height = 0;
  #frame = 0;

  constructor(private readonly box: HTMLElement) {}

  measure = (): void => {
    this.#width = this.box.clientWidth;
    this.#height = this.box.clientHeight;
  };

  scrolled = (): void => {
    this.#left = this.box.scrollLeft;
    this.#top = this.box.scrollTop;
  };

  /** Scrolls a column and a row into view, clear of sticky edges, if necessary. In the next frame, when the events of all scrolling so far
   *  have come: a row that assistive technology scrolls into view and presses at once must not jump away. */
  bring(column: VisibleRange | undefined, row: VisibleRange | undefined, covered: { readonly left: number; readonly top: number }): void {
    cancelAnimationFrame(this.#frame);
    this.#frame = requestAnimationFrame(() => this.#bringNow(column, row, covered));
  }

  stop = (): void => cancelAnimationFrame(this.#frame);

  #bringNow(
    column: VisibleRange | undefined,
    row: VisibleRange | undefined,
    covered: { readonly left: number; readonly top: number },
  ): void {
    const left = column ? scrolledTo({ from: this.#left, size: this.#width, covered: covered.left }, column) : this.#left;
    const top = row ? scrolledTo({ from: this.#top, size: this.#height, covered: covered.top }, row) : this.#top;
    if (left !== this.#left) this.box.scrollLeft = this.#left = left;
    if (top !== this.#top) this.box.scrollTop = this.#top = top;
  }
}

/** A scroller and what of it is in view. */
export function useViewport(): readonly [RefObject<HTMLDivElement | null>, RefObject<Viewport | null>] {
  const scroller = useRef<HTMLDivElement>(null);
  const viewport = useRef<Viewport>(null);
  useEffect(() => {
    const box = scroller.current;
    if (!box) return;
    const made = new Viewport(box);
    viewport.current = made;
    made.measure();
    made.scrolled();
    const size = new ResizeObserver(made.measure);
    size.observe(box);
    box.addEventListener('scroll', made.scrolled, { passive: true });
    return () => {
      made.stop();
      size.disconnect();
      box.removeEventListener('scroll', made.scrolled);
    };
  }, []);
  return [scroller, viewport];
}
