/** Stands for the converter's channel of a pin that has none. */
export const NO_CHANNEL = 255;

/** The part of the probe for ATmega chips by which parts are tried: it watches, converts, pulses, speaks SPI and 1-Wire. */
export const AVR_TRIALS = `bool changes(const PinAt &p, uint16_t milliseconds) {
  release(p, true);
  _delay_ms(2);
  const bool first = isHigh(p);
  bool moved = false;
  for (uint32_t n = 0; n < milliseconds * 50UL && !moved; n++) {
    moved = isHigh(p) != first;
    _delay_us(20);
  }
  release(p);
  return moved;
}

// Which phase of an encoder goes low first: both are high at rest, and the other must follow.
void turn(const PinAt &a, const PinAt &b, uint16_t milliseconds) {
  release(a, true);
  release(b, true);
  _delay_ms(2);
  char leads = 0;
  bool done = false;
  for (uint32_t n = 0; n < milliseconds * 50UL && !done; n++) {
    const bool first = isHigh(a), second = isHigh(b);
    if (first && second)
      leads = 0;
    else if (!leads && first != second)
      leads = first ? 'b' : 'a';
    else if (leads && !first && !second)
      done = true;
    _delay_us(20);
  }
  release(a);
  release(b);
  say("ok ");
  if (!done) return say("none");
  serialWrite(leads);
}

void sayNumber(uint16_t value) {
  char digits[6];
  say(utoa(value, digits, 10));
}

void span(const PinAt &p, uint16_t milliseconds) {
  if (p.channel == ${NO_CHANNEL}) return say("no converter");
  release(p);
  ADMUX = static_cast<uint8_t>(_BV(REFS0) | (p.channel & 7));
#if defined(MUX5)
  ADCSRB = p.channel > 7 ? _BV(MUX5) : 0;
#endif
  ADCSRA = _BV(ADEN) | _BV(ADPS2) | _BV(ADPS1) | _BV(ADPS0);
  uint16_t least = 1023, most = 0;
  for (uint16_t n = 0; n < milliseconds; n++) {
    ADCSRA |= _BV(ADSC);
    while (ADCSRA & _BV(ADSC)) {
    }
    const uint16_t value = ADC;
    if (value < least) least = value;
    if (value > most) most = value;
    if (most > least + 204) break;
    _delay_us(900);
  }
  ADCSRA = 0;
  say("ok ");
  sayNumber(static_cast<uint16_t>(least * 100UL / 1023));
  serialWrite(' ');
  sayNumber(static_cast<uint16_t>(most * 100UL / 1023));
}

void level(const PinAt &p, bool high) {
  if (high)
    *p.port |= static_cast<uint8_t>(_BV(p.bit));
  else
    *p.port &= static_cast<uint8_t>(~_BV(p.bit));
  *p.ddr |= static_cast<uint8_t>(_BV(p.bit));
}

void pause(uint32_t microseconds) {
  for (; microseconds >= 10; microseconds -= 10) _delay_us(10);
}

void pulse(const PinAt &p, uint32_t period, uint32_t high, uint16_t milliseconds) {
  if (period < 10 || period > 100000UL || high > period) return say("no verb");
  for (uint32_t n = milliseconds * 1000UL / period; n > 0; n--) {
    level(p, true);
    pause(high);
    level(p, false);
    pause(period - high);
  }
  release(p);
  say("ok");
}

int8_t hexDigit(char c) {
  if (c >= '0' && c <= '9') return static_cast<int8_t>(c - '0');
  return c >= 'a' && c <= 'f' ? static_cast<int8_t>(c - 'a' + 10) : static_cast<int8_t>(-1);
}

void sayByte(uint8_t value) {
  const char digits[] = "0123456789abcdef";
  serialWrite(digits[value >> 4]);
  serialWrite(digits[value & 15]);
}

// Words of whole bytes, each sent while the part is selected, or not where it begins with ^; the last one's answer is told.
void spi(const PinAt &clk, const PinAt &data, const PinAt *back, const PinAt *select, char *rest) {
  if (!rest || !*rest) return say("no verb");
  for (const char *c = rest; *c; c++)
    if (*c != ' ' && *c != '^' && hexDigit(*c) < 0) return say("no verb");
  level(clk, false);
  level(data, false);
  // Pulled up, so that nobody there reads as ones.
  if (back) release(*back, true);
  if (select) level(*select, true);
  say("ok ");
  const char *word = strtok_r(nullptr, " ", &rest);
  while (word) {
    const bool asleep = word[0] == '^';
    if (asleep) word++;
    const bool isLast = !rest || !*rest;
    if (select && !asleep) level(*select, false);
    for (; word[0] && word[1]; word += 2) {
      const uint8_t byte = static_cast<uint8_t>(hexDigit(word[0]) * 16 + hexDigit(word[1]));
      uint8_t value = 0;
      for (uint8_t mask = 0x80; mask; mask = static_cast<uint8_t>(mask >> 1)) {
        level(data, byte & mask);
        level(clk, true);
        _delay_us(2);
        value = static_cast<uint8_t>(value << 1 | (!back || isHigh(*back) ? 1 : 0));
        level(clk, false);
        _delay_us(2);
      }
      if (isLast) sayByte(value);
    }
    if (select) level(*select, true);
    word = isLast ? nullptr : strtok_r(nullptr, " ", &rest);
  }
  release(clk);
  release(data);
  if (back) release(*back);
  if (select) release(*select);
}

bool resetWire(const PinAt &p) {
  low(p);
  _delay_us(480);
  release(p);
  _delay_us(70);
  const bool heard = !isHigh(p);
  _delay_us(410);
  return heard;
}
void putBit(const PinAt &p, bool bit) {
  low(p);
  if (bit) {
    _delay_us(6);
    release(p);
    _delay_us(64);
  } else {
    _delay_us(60);
    release(p);
    _delay_us(10);
  }
}
bool getBit(const PinAt &p) {
  low(p);
  _delay_us(6);
  release(p);
  _delay_us(9);
  const bool high = isHigh(p);
  _delay_us(55);
  return high;
}

// The search of 1-Wire: up to the last fork as before, there the other way.
void search(const PinAt &p) {
  uint8_t code[8] = {0};
  uint8_t fork = 65, count = 0;
  say("ok");
  release(p);
  _delay_ms(1);
  if (!isHigh(p)) return say(" none");
  while (fork && count < 8 && resetWire(p)) {
    for (uint8_t bit = 0; bit < 8; bit++) putBit(p, (0xF0 >> bit) & 1);
    uint8_t last = 0;
    for (uint8_t at = 1; at <= 64; at++) {
      const bool zero = getBit(p), one = getBit(p);
      uint8_t &byte = code[(at - 1) >> 3];
      const uint8_t mask = static_cast<uint8_t>(1 << ((at - 1) & 7));
      bool way = zero;
      if (zero && one) return say(count ? "" : " none");
      if (zero == one) {
        way = at < fork ? (byte & mask) != 0 : at == fork;
        if (!way) last = at;
      }
      byte = static_cast<uint8_t>(way ? byte | mask : byte & ~mask);
      putBit(p, way);
    }
    serialWrite(' ');
    for (uint8_t n = 0; n < 8; n++) sayByte(code[n]);
    count++;
    fork = last;
  }
  if (!count) say(" none");
}
`;
