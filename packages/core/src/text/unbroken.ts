/** A piece of a text; `whole` where no line may end in it. */
export interface TextPiece {
  readonly text: string;
  readonly whole: boolean;
}

/** A number and what it counts or measures, after the begin of a line, a space or a parenthesis. */
const MEASURED = /(?<=^|[\s(])(?:[−-]?\d[\d.,]* )+\S+/g;

/** A text in pieces, so that no line ends between a number and what it counts or measures. The pieces together are the text.
 *  @example unbroken('limit 500 mA') // [{ text: 'limit ', whole: false }, { text: '500 mA', whole: true }] */
export function unbroken(text: string): readonly TextPiece[] {
  const pieces: TextPiece[] = [];
  let from = 0;
  for (const { 0: found, index } of text.matchAll(MEASURED)) {
    if (index > from) pieces.push({ text: text.slice(from, index), whole: false });
    pieces.push({ text: found, whole: true });
    from = index + found.length;
  }
  return from < text.length ? [...pieces, { text: text.slice(from), whole: false }] : pieces;
}
