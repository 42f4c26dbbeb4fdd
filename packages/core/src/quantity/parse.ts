const FACTORS: { readonly [prefix: string]: number } = {
  p: 1e-12,
  n: 1e-9,
  u: 1e-6,
  µ: 1e-6,
  μ: 1e-6,
  m: 1e-3,
  k: 1e3,
  K: 1e3,
  M: 1e6,
  G: 1e9,
};

/** Nobody writes a value longer than this. */
const LONGEST = 60;

/** A value as people write it, in its base unit: with a prefix, with the unit, or with the prefix in the place of the point.
 *  Undefined where it is none.
 *  @example parseSi('4k7', 'Ω') // 4700
 *  @example parseSi('400 kHz', 'Hz') // 400_000
 *  @example parseSi('86pF', 'F') // 8.6e-11 */
export function parseSi(text: string, unit: string): number | undefined {
  if (text.length > LONGEST) return undefined;
  const bare = text.trim().replace(/[\s_]/g, '').replace(',', '.');
  const units = unit === 'Ω' ? ['Ω', 'Ω', 'ohm', 'Ohm', 'R'] : [unit];
  const own = units.find((u) => bare.endsWith(u));
  const rest = own ? bare.slice(0, -own.length) : bare;
  const inner = /^(\d+)([pnuµμmkKMGR])(\d+)$/.exec(rest);
  if (inner) return Number(`${inner[1]}.${inner[3]}`) * (FACTORS[inner[2]!] ?? 1);
  const match = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)([pnuµμmkKMG]?)$/i.exec(rest);
  if (!match) return undefined;
  const value = Number(match[1]) * (match[2] ? FACTORS[match[2]]! : 1);
  return Number.isFinite(value) ? value : undefined;
}
