import { hasCharacter } from './glyphs';

test.each([...'äöüñµΩπß°→←¥÷∞Σ√θ', ...'azAZ09 }|', 'ｱ'])('ROM A00 has %s', (character) => expect(hasCharacter(character)).toBe(true));
test.each([...'\\~éÄÖÜ€😀中àç'])('ROM A00 has no %s', (character) => expect(hasCharacter(character)).toBe(false));
