/** How far supplies are from what is printed beside them. `nominal`: not at all. `usual`: within the tolerance that supplies of this kind
 *  normally have. `extreme`: anywhere within their limits. Each includes the one before. */
export const CONDITIONS = ['nominal', 'usual', 'extreme'] as const;
export type Condition = (typeof CONDITIONS)[number];
