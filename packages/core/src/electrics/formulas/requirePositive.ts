/** Requires inputs of a formula to lie above zero.
 *  @param inputs by the name that the error gives them
 *  @throws RangeError naming the first that does not */
export function requirePositive(inputs: { readonly [name: string]: number }): void {
  for (const [name, value] of Object.entries(inputs))
    if (!(value > 0)) throw new RangeError(`${name} ${value}: expected a value above zero`);
}
