/** A lazily computed value, computed once. */
export function lazy<T>(work: () => T): () => T {
  let done: { readonly result: T } | undefined;
  return () => (done ??= { result: work() }).result;
}
