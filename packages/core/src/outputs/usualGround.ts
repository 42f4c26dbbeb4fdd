/** Ground positions with the label that most of them have: an analog ground is left to what needs it.
 *  @example usualGround([{ label: 'GND' }, { label: 'GND' }, { label: 'AGND' }]) // the first two */
export function usualGround<T extends { readonly label: string }>(positions: readonly T[]): readonly T[] {
  const count = (label: string) => positions.filter((one) => one.label === label).length;
  const most = Math.max(...positions.map(({ label }) => count(label)));
  return positions.filter(({ label }) => count(label) === most);
}
