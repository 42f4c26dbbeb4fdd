import { entryOrThrow } from '../../collections/orThrow';
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

/** Letters that Unicode does not decompose, with their ASCII spelling. */
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

/** An identifier valid in every language, in lower case with underscores.
 *  @param otherwise replacement for a text without Latin letters
 *  @example identifier('OLED 128×64') // 'oled_128_64'
 *  @example identifier('Höhe') // 'hohe' */
export function identifier(text: string, otherwise = ''): string {
  const bare = text
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
    .replace(/[ßæœøđłþωμ°]/g, (letter) => entryOrThrow(SPELT, letter))
    .replace(/\+/g, ' plus ')
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^_+|_+$/g, '')
    .slice(0, 48)
    .replace(/_+$/, '');
  if (!/[a-z]/.test(bare) && otherwise !== '') return identifier(bare === '' ? otherwise : `${otherwise} ${bare}`);
  const begun = /^[a-z]/.test(bare) ? bare : `n${bare}`;
  return KEPT.has(begun) ? `${begun}_` : begun;
}

/** Unique names for several texts, in order.
 *  @param otherwise replacement for each text without Latin letters */
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

/** Text that is safe in a line comment: no line breaks and no line continuation. */
export const inComment = (text: string): string =>
  text
    .replace(/[\u0000-\u001f\u007f-\u009f\u2028-\u202e\u2066-\u2069]+/g, ' ')
    .replace(/\\/g, '/')
    // "??/" is a backslash to compilers that know trigraphs: at the end of a line it would carry the comment on.
    .replace(/\?(?=\?)/g, '? ')
    .replace(/\*\//g, '* /')
    .replace(/\/\*/g, '/ *');
