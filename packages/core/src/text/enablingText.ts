import type { Enabling } from '../sheets/boardSheet';

/** An instruction with its lines.
 *  @example enablingText({ words: 'In config.txt:', lines: ['dtparam=spi=on'] }) // 'In config.txt: dtparam=spi=on' */
export const enablingText = ({ words, lines }: Pick<Enabling, 'words' | 'lines'>): string =>
  lines.length > 0 ? `${words} ${lines.join(' and ')}` : words;
