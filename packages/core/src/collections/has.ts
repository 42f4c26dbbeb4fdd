/** An object that has these optional fields. */
export type With<T, K extends keyof T> = T & { readonly [P in K]-?: Exclude<T[P], undefined> };

/** Whether an object has an optional field, as a test for lists. */
export const has =
  <K extends PropertyKey>(key: K) =>
  <T extends { readonly [P in K]?: unknown }>(value: T): value is With<T, K> =>
    value[key] !== undefined;
