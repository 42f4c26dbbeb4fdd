/** The module that an import brings. When its file cannot be had, the import ends without a module and the tab is about to reload (see
 *  `reloadForUpgrades`): the view then keeps waiting, because an error would be shown until the reload.
 *  @param load the running import; its own errors pass through */
export async function loaded<Module>(load: Promise<Module | undefined>): Promise<Module> {
  return (await load) ?? new Promise<Module>(() => undefined);
}

let waiting = 0;

/** Whether something that is to be shown now waits for its code; what is loaded ahead does not count. */
export const isCodeAwaited = (): boolean => waiting > 0;

/** The code of what is to be shown now. */
export async function awaited<Code>(load: () => Promise<Code>): Promise<{ readonly default: Code }> {
  waiting += 1;
  try {
    return { default: await load() };
  } finally {
    waiting -= 1;
  }
}
