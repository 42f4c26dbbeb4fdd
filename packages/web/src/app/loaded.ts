/** The module that an import brings. When its file is gone after an upgrade, the import ends without a module while the tab is about to
 *  reload (see `reloadForUpgrades`): the view then keeps waiting, because an error would be shown until the reload.
 *  @param load the running import; its own errors pass through */
export async function loaded<Module>(load: Promise<Module | undefined>): Promise<Module> {
  return (await load) ?? new Promise<Module>(() => undefined);
}
