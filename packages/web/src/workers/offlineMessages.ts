/** The sheets and the list of plans as the server last gave them. */
export const SERVER_CACHE = 'roof-chart-server';

/** What a page tells a new version of the service worker. */
export type PageMessage =
  /** Whether the version is the one that the page itself runs: then it takes over at once. */
  | { readonly kind: 'compare'; readonly script: string }
  /** The user accepted the new version: the page is about to reload. */
  | { readonly kind: 'take-over' };

export interface WorkerAnswer {
  readonly isSame: boolean;
}
