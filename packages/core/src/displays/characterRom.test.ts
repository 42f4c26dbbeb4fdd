import { hasCharacter } from './glyphs';

test.each([...'äöüñµΩπß°→←¥÷∞Σ√θ', ...'azAZ09 }|', 'ｱ', '\uff61', '\uff9f'])('ROM A00 has %s', (character) =>
  expect(hasCharacter(character)).toBe(true),
);
test.each(['\uff60', '\uffa0', '\u{1f600}', ...'\\~éÄÖÜ€😀中àç'])('ROM A00 has no %s', (character) =>
  expect(hasCharacter(character)).toBe(false),
);
