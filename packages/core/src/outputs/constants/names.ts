/** Words that one of the languages keeps for itself, and the keys of our own documents: a part of that name must not take their place. */
const KEPT = new Set(
  `alignas alignof and and_eq asm auto bitand bitor bool break case catch char class compl const constexpr continue decltype default delete do
  double else enum explicit export extern false float for friend goto if inline int long mutable namespace new noexcept not not_eq null
  nullptr operator or or_eq private protected public register return short signed sizeof static struct switch template this throw true try
  typedef typename union unsigned using virtual void volatile while xor xor_eq main std linux unix avr
  as async await box crate dyn abstract become final fn impl in let loop macro match mod move mut override priv pub ref self super trait
  type unsafe unsized use where yield gen def del elif except finally from global import is lambda nonlocal none pass print raise with
  plan board pin_numbers title
  uint8_t uint16_t uint32_t int8_t int16_t int32_t f32 f64 i8 i16 i32 i64 u8 u16 u32 u64 usize isize str micropython`.split(/\s+/),
);

/** Letters that Unicode does not take apart, as they are written without them. */
const SPELT: { readonly [letter: string]: string } = {
  ß: 'ss',
  æ: 'ae',
  œ: 'oe',
  ø: 'o',
  đ: 'd',
  ł: 'l',
  þ: 'th',
  ω: 'ohm',
  μ: 'u',
  '°': 'deg',
};

/** A name that every language takes, in small letters with underscores.
 *  @param otherwise stands for a text of which no letter is left, such as one in another script
 *  @example identifier('OLED 128×64') // 'oled_128_64'
 *  @example identifier('Höhe') // 'hohe' */
export function identifier(text: string, otherwise = ''): string {
  const bare = text
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
    .replace(/[ßæœøđłþωμ°]/g, (letter) => SPELT[letter]!)
    .replace(/\+/g, ' plus ')
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^_+|_+$/g, '')
    .slice(0, 48)
    .replace(/_+$/, '');
  if (!/[a-z]/.test(bare) && otherwise !== '') return identifier(bare === '' ? otherwise : `${otherwise} ${bare}`);
  const begun = /^[a-z]/.test(bare) ? bare : `n${bare}`;
  return KEPT.has(begun) ? `${begun}_` : begun;
}

/** Names for several texts, each its own, in their order.
 *  @param otherwise what stands for each where no letter of it is left */
export function identifiers(texts: readonly string[], otherwise: readonly string[] = []): readonly string[] {
  const taken = new Set<string>();
  return texts.map((text, at) => {
    const name = identifier(text, otherwise[at]);
    let own = name;
    for (let n = 2; taken.has(own); n += 1) own = `${name}_${n}`;
    taken.add(own);
    return own;
  });
}

/** Text as it may stand in a comment to the end of a line: no breaks, and nothing that goes on in the next one. */
export const inComment = (text: string): string =>
  text
    .replace(/[\u0000-\u001f\u007f-\u009f\u2028-\u202e\u2066-\u2069]+/g, ' ')
    .replace(/\\/g, '/')
    // "??/" is a backslash to compilers that know trigraphs: at the end of a line it would carry the comment on.
    .replace(/\?(?=\?)/g, '? ')
    .replace(/\*\//g, '* /')
    .replace(/\/\*/g, '/ *');
