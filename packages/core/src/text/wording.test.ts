import { documentTexts, type PlacedText, sheetTexts, sourceComments, sourceTexts, undocumented } from '../../tests/visibleTexts';

/** Phrases that people had to translate, with the words of the trade. */
const OLD: readonly (readonly [RegExp, string])[] = [
  [/\b(nobody|somebody|whoever)\b/i, 'name who or what: the user, the device, unknown'],
  [/\b(lean(s|ing)? on|content with|bear (the plan |it )?out|held against|hold against)\b/i, 'state: unverified, OK, compared with'],
  [/\bbuilder('s|’s|s)?\b/i, 'user'],
  [/\bhangs? (on|at|from|under|here|there|in the air)\b|\bhang(s|ing)? on\b/i, 'is connected to, is supplied by, load'],
  [/\b(lives?|standing) (on|from|off)\b/i, 'is powered by'],
  [/\brests? (at|high|low|too|alone|somewhere|either)\b|\bat rest\b/i, 'idles, idle level'],
  [/\bstands? (for|at|on|in|against|as|there|beside|behind|before)\b/i, 'tolerates, represents, is'],
  [/\b(asks|asked|asking) (for|of)\b|\bas its sheet asks\b/i, 'requires, requests'],
  [/\bwants?\b/i, 'requires'],
  [/\b(takes|taken|take) (away|off|in|back)\b/i, 'removes, reverts, imports'],
  [/\b(at the (most|least|very most)|at worst|as (much|few|well) as (it )?can be)\b/i, 'up to, at least, worst case, as few as possible'],
  [/\bremed(y|ies)\b/i, 'fix'],
  [/\bclash(es|ing)?\b/i, 'error, conflict'],
  [/\b(auto-settle|settl(ed|es|ing))\b|\bSettle\b/, 'assign pins'],
  [/\bwish(es|ed)?\b/i, 'preference'],
  [/\bways? out\b/i, 'alternative'],
  [/\bfirst light\b/i, 'first power-up'],
  [/\bdrawer\b/i, 'values on hand'],
  [/\blamps?\b/i, 'LED, indicator'],
  [/\bstretch(es)? of\b|\bstretches\b/i, 'segment'],
  [/\bgrave\b|\ball is well\b|\bis well\b/i, 'serious, OK'],
  [/(?<!(lower|upper)-case )\bletters\b(?! (and|or) digits|, digits| and dashes)/i, 'characters'],
  [/\b(unsound|not sound|is sound|a sound)\b/i, 'valid, invalid'],
  [/\b(kept versions?|take back|go(es)? back to|gone back to)\b/i, 'saved version, revert, restore'],
  [/\b(came|comes) (of|there)\b/i, 'result'],
  [/\b(is|are) told\b|\btell(s|ing)? (of|that)\b|\blit .{0,20}(times|th of)\b/i, 'is reported, duty'],
  [/\b\d+th of a\b|\btimes a second\b|\bof a second\b/i, '1/4 duty, Hz, utilisation'],
  [/\b(let go|lets go|felt|feels) (of|as|in|the|their)\b/i, 'release, measure, confirm'],
  [/\b(its|one’s|one's|their|a|an) .{0,20}\bof (one’s|one's) own\b/i, 'own, custom'],
  [/\b(colors?|gray|behavior|centers?|centered|initialize[ds]?|neighbors?|labeled)\b/, 'British spelling'],
];

/** Words that code still has for its own things; they follow when the code is renamed. */
const OF_THE_CODE = new Set([
  'fix',
  'error, conflict',
  'assign pins',
  'preference',
  'alternative',
  'first power-up',
  'values on hand',
  'LED, indicator',
  'segment',
  'characters',
]);

const faults = (texts: readonly PlacedText[], rules: typeof OLD): readonly string[] =>
  texts.flatMap(({ at, text }) =>
    rules.flatMap(([old, better]) => (old.test(text) ? [`${at}: “${old.exec(text)![0]}” → ${better}: ${text.slice(0, 140)}`] : [])),
  );

test('what people read in the interface, the command line and the server has the words of the trade', () => {
  const texts = sourceTexts();
  expect(texts.length).toBeGreaterThan(2000);
  expect(faults(texts, OLD)).toEqual([]);
});

test('so has the documentation', () => {
  const texts = documentTexts();
  expect(texts.length).toBeGreaterThan(1000);
  expect(faults(texts, OLD)).toEqual([]);
});

test('so have the sheets', () => {
  const texts = sheetTexts();
  expect(texts.length).toBeGreaterThan(2000);
  expect(faults(texts, OLD)).toEqual([]);
});

test('so have comments, but for names that the code still has', () => {
  const texts = sourceComments();
  expect(texts.length).toBeGreaterThan(1500);
  expect(
    faults(
      texts,
      OLD.filter(([, better]) => !OF_THE_CODE.has(better)),
    ),
  ).toEqual([]);
});

test('texts for people have no exclamation marks', () => {
  expect([...sourceTexts(), ...sheetTexts()].filter(({ text }) => /[a-z]!( |$)/.test(text))).toEqual([]);
});

test('every exported function and class of the core has a docstring', () => {
  expect(undocumented()).toEqual([]);
});
