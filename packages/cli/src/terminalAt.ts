import { atOrThrow } from '@roof-chart/core/collections/orThrow';
import { InputFault } from './io';

/** "display-1:SDA" as a part and its terminal.
 *  @throws InputFault where it is not written like that */
export function terminalAt(text: string): { placement: string; terminal: string } {
  const match = /^([a-z0-9][a-z0-9-]*):(.+)$/.exec(text);
  if (!match) throw new InputFault(`${text}: expected part:terminal, for example display-1:SDA`);
  return { placement: atOrThrow(match, 1), terminal: atOrThrow(match, 2) };
}
