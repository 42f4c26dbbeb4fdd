/** Work that is done when its result is first asked for, and once. */
export function once<T>(work: () => T): () => T {
  let done: { readonly result: T } | undefined;
  return () => (done ??= { result: work() }).result;
}
