// Probe for BOARD_TITLE: answers line protocol 1 on the serial port, 115200 baud.
// It drives nothing unless it is asked to, and lets every pin go again.
#ifndef F_CPU
#define F_CPU 16000000UL
#endif
#include <avr/io.h>
#include <stdint.h>
#include <stdlib.h>
#include <string.h>
#include <util/delay.h>

namespace {

struct PinAt {
  const char* name;
  volatile uint8_t *ddr, *port, *in;
  uint8_t bit, channel;
};

// Of a pin without an input of the converter.
const uint8_t NO_CHANNEL = 255;

const PinAt PINS[] = {
    {"D2", &DDRD, &PORTD, &PIND, 2, NO_CHANNEL},
};
const uint8_t PIN_COUNT = sizeof(PINS) / sizeof(PINS[0]);

#if defined(UBRR0)
void serialBegin() {
  UCSR0A = _BV(U2X0);
  UBRR0 = F_CPU / 8 / 115200UL - 1;
  UCSR0B = _BV(RXEN0) | _BV(TXEN0);
}
char serialRead() {
  while (!(UCSR0A & _BV(RXC0))) {
  }
  return static_cast<char>(UDR0);
}
void serialWrite(char c) {
  while (!(UCSR0A & _BV(UDRE0))) {
  }
  UDR0 = static_cast<uint8_t>(c);
}
#elif defined(UBRRL)
void serialBegin() {
  UCSRA = _BV(U2X);
  UBRRH = 0;
  UBRRL = F_CPU / 8 / 115200UL - 1;
  UCSRB = _BV(RXEN) | _BV(TXEN);
}
char serialRead() {
  while (!(UCSRA & _BV(RXC))) {
  }
  return static_cast<char>(UDR);
}
void serialWrite(char c) {
  while (!(UCSRA & _BV(UDRE))) {
  }
  UDR = static_cast<uint8_t>(c);
}
#elif defined(UBRR1)
void serialBegin() {
  UCSR1A = _BV(U2X1);
  UBRR1 = F_CPU / 8 / 115200UL - 1;
  UCSR1B = _BV(RXEN1) | _BV(TXEN1);
}
char serialRead() {
  while (!(UCSR1A & _BV(RXC1))) {
  }
  return static_cast<char>(UDR1);
}
void serialWrite(char c) {
  while (!(UCSR1A & _BV(UDRE1))) {
  }
  UDR1 = static_cast<uint8_t>(c);
}
#else
#error "This chip has no serial port that the probe knows"
#endif

void say(const char* text) {
  while (*text) serialWrite(*text++);
}

void release(const PinAt& p, bool pullUp = false) {
  *p.ddr &= static_cast<uint8_t>(~_BV(p.bit));
  if (pullUp)
    *p.port |= static_cast<uint8_t>(_BV(p.bit));
  else
    *p.port &= static_cast<uint8_t>(~_BV(p.bit));
}
void low(const PinAt& p) {
  *p.port &= static_cast<uint8_t>(~_BV(p.bit));
  *p.ddr |= static_cast<uint8_t>(_BV(p.bit));
}
bool isHigh(const PinAt& p) { return (*p.in & _BV(p.bit)) != 0; }

const PinAt* find(const char* name) {
  for (uint8_t n = 0; n < PIN_COUNT; n++)
    if (strcmp(PINS[n].name, name) == 0) return &PINS[n];
  return nullptr;
}

void sayLevel(bool high) { say(high ? "ok 1" : "ok 0"); }

// This chip has no pull-downs: a pin is emptied, left alone for a moment, and then read.
void readPin(const PinAt& p, bool up) {
  if (up) {
    release(p, true);
    _delay_ms(2);
  } else {
    // Shorter than a reset of 1-Wire: its parts would pull the line low for their answer.
    low(p);
    _delay_us(100);
    release(p);
    _delay_us(50);
  }
  const bool high = isHigh(p);
  release(p);
  sayLevel(high);
}

// Whether a pin reads the same through its pull-up and after it was emptied.
void held(const PinAt& p) {
  release(p, true);
  _delay_ms(2);
  const bool up = isHigh(p);
  low(p);
  _delay_us(100);
  release(p);
  _delay_us(50);
  sayLevel(up == isHigh(p));
}

void link(const PinAt& drive, const PinAt& other) {
  release(other, true);
  low(drive);
  _delay_ms(2);
  const bool high = isHigh(other);
  release(drive);
  release(other);
  sayLevel(high);
}

uint16_t upTo(const char* word, uint16_t most) {
  const unsigned long value = strtoul(word, nullptr, 10);
  return value > most ? most : static_cast<uint16_t>(value);
}

void wait(uint16_t milliseconds) {
  for (uint16_t n = 0; n < milliseconds && n < 5000; n++) _delay_ms(1);
}

void hold(const PinAt& p, bool high, uint16_t milliseconds) {
  if (high) {
    *p.port |= static_cast<uint8_t>(_BV(p.bit));
    *p.ddr |= static_cast<uint8_t>(_BV(p.bit));
  } else
    low(p);
  wait(milliseconds);
  release(p);
}

// Microseconds from letting an emptied pin go until it is high, in steps of ten.
void rise(const PinAt& p) {
  low(p);
  _delay_us(100);
  release(p);
  for (uint16_t n = 0; n <= 2000; n++) {
    if (isHigh(p)) {
      char digits[8];
      say("ok ");
      return say(utoa(n * 10, digits, 10));
    }
    _delay_us(10);
  }
  say("ok never");
}

void line(const PinAt& p, bool high) {
  if (high)
    release(p);
  else
    low(p);
  _delay_us(10);
}
void clock(const PinAt& scl, bool high) {
  line(scl, high);
  // A part may hold the clock.
  for (uint8_t n = 0; high && n < 100 && !isHigh(scl); n++) _delay_us(20);
}

bool answers(const PinAt& sda, const PinAt& scl, uint8_t address) {
  line(sda, false);
  clock(scl, false);
  for (int8_t bit = 7; bit >= 0; bit--) {
    line(sda, ((address << 1) >> bit) & 1);
    clock(scl, true);
    clock(scl, false);
  }
  line(sda, true);
  clock(scl, true);
  const bool heard = !isHigh(sda);
  clock(scl, false);
  line(sda, false);
  clock(scl, true);
  line(sda, true);
  return heard;
}

void scan(const PinAt& sda, const PinAt& scl) {
  release(sda);
  release(scl);
  _delay_ms(1);
  if (!isHigh(scl)) return say("no scl-low");
  if (!isHigh(sda)) return say("no sda-low");
  say("ok");
  bool any = false;
  for (uint8_t address = 8; address < 120; address++) {
    if (!answers(sda, scl, address)) continue;
    any = true;
    const char digits[] = "0123456789abcdef";
    serialWrite(' ');
    serialWrite(digits[address >> 4]);
    serialWrite(digits[address & 15]);
  }
  if (!any) say(" none");
}

bool changes(const PinAt& p, uint16_t milliseconds) {
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
void turn(const PinAt& a, const PinAt& b, uint16_t milliseconds) {
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

void span(const PinAt& p, uint16_t milliseconds) {
  if (p.channel == NO_CHANNEL) return say("no converter");
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

void level(const PinAt& p, bool high) {
  if (high)
    *p.port |= static_cast<uint8_t>(_BV(p.bit));
  else
    *p.port &= static_cast<uint8_t>(~_BV(p.bit));
  *p.ddr |= static_cast<uint8_t>(_BV(p.bit));
}

void pause(uint32_t microseconds) {
  for (; microseconds >= 10; microseconds -= 10) _delay_us(10);
}

void pulse(const PinAt& p, uint32_t period, uint32_t high, uint16_t milliseconds) {
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

// Words of whole bytes, each sent while the part is selected, or not where it begins with ^; the last one's
// answer is told.
void spi(const PinAt& clk, const PinAt& data, const PinAt* back, const PinAt* select, char* rest) {
  if (!rest || !*rest) return say("no verb");
  for (const char* c = rest; *c; c++)
    if (*c != ' ' && *c != '^' && hexDigit(*c) < 0) return say("no verb");
  level(clk, false);
  level(data, false);
  // Pulled up, so that nobody there reads as ones.
  if (back) release(*back, true);
  if (select) level(*select, true);
  say("ok ");
  const char* word = strtok_r(nullptr, " ", &rest);
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

bool resetWire(const PinAt& p) {
  low(p);
  _delay_us(480);
  release(p);
  _delay_us(70);
  const bool heard = !isHigh(p);
  _delay_us(410);
  return heard;
}
void putBit(const PinAt& p, bool bit) {
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
bool getBit(const PinAt& p) {
  low(p);
  _delay_us(6);
  release(p);
  _delay_us(9);
  const bool high = isHigh(p);
  _delay_us(55);
  return high;
}

// The search of 1-Wire: up to the last fork as before, there the other way.
void search(const PinAt& p) {
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
      uint8_t& byte = code[(at - 1) >> 3];
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

void walk(const char* milliseconds, char* rest) {
  uint8_t count = 0;
  for (const char* name = strtok_r(nullptr, " ", &rest); name; name = strtok_r(nullptr, " ", &rest)) {
    const PinAt* p = find(name);
    if (!p) {
      say("no pin ");
      return say(name);
    }
    hold(*p, true, static_cast<uint16_t>(atoi(milliseconds)));
    count++;
  }
  char digits[4];
  say("ok ");
  say(utoa(count, digits, 10));
}

void reply(const char* verb, const char* first, char* rest) {
  if (strcmp(verb, "hello") == 0) return say("ok probe 1 BOARD_ID");
  if (!first) return say("no verb");
  if (strcmp(verb, "walk") == 0) return walk(first, rest);
  const PinAt* a = find(first);
  if (!a) {
    say("no pin ");
    return say(first);
  }
  if (strcmp(verb, "rise") == 0) return rise(*a);
  if (strcmp(verb, "search") == 0) return search(*a);
  if (strcmp(verb, "held") == 0) return held(*a);
  const char* second = strtok_r(nullptr, " ", &rest);
  if (!second) return say("no verb");
  if (strcmp(verb, "drive") == 0) {
    const char* milliseconds = strtok_r(nullptr, " ", &rest);
    if (!milliseconds) return say("no verb");
    hold(*a, second[0] == '1', static_cast<uint16_t>(atoi(milliseconds)));
    return say("ok");
  }
  if (strcmp(verb, "read") == 0) {
    if (strcmp(second, "up") == 0) return readPin(*a, true);
    if (strcmp(second, "down") == 0) return readPin(*a, false);
    return say("no verb");
  }
  if (strcmp(verb, "watch") == 0) return sayLevel(changes(*a, upTo(second, 10000)));
  if (strcmp(verb, "span") == 0) return span(*a, upTo(second, 10000));
  if (strcmp(verb, "pulse") == 0) {
    const char* high = strtok_r(nullptr, " ", &rest);
    const char* milliseconds = strtok_r(nullptr, " ", &rest);
    if (!high || !milliseconds) return say("no verb");
    return pulse(*a, strtoul(second, nullptr, 10), strtoul(high, nullptr, 10), upTo(milliseconds, 5000));
  }
  const PinAt* b = find(second);
  if (!b) {
    say("no pin ");
    return say(second);
  }
  if (strcmp(verb, "scan") == 0) return scan(*a, *b);
  if (strcmp(verb, "link") == 0) return link(*a, *b);
  const char* third = strtok_r(nullptr, " ", &rest);
  if (third && strcmp(verb, "turn") == 0) return turn(*a, *b, upTo(third, 10000));
  const char* fourth = strtok_r(nullptr, " ", &rest);
  if (fourth && strcmp(verb, "spi") == 0) {
    for (const char* name = third; name; name = name == third ? fourth : nullptr)
      if (strcmp(name, "-") != 0 && !find(name)) {
        say("no pin ");
        return say(name);
      }
    return spi(*a, *b, find(third), find(fourth), rest);
  }
  say("no verb");
}

}  // namespace

int main() {
  serialBegin();
  char text[200];
  uint8_t length = 0;
  for (;;) {
    const char c = serialRead();
    if (c != '\n' && c != '\r') {
      if (length < sizeof(text) - 1) text[length++] = c;
      continue;
    }
    if (length == 0) continue;
    text[length] = 0;
    length = 0;
    char* rest = text;
    const char* number = strtok_r(rest, " ", &rest);
    const char* verb = strtok_r(nullptr, " ", &rest);
    if (!number || !verb || number[0] < '0' || number[0] > '9') {
      say("# unknown command\n");
      continue;
    }
    const char* first = strtok_r(nullptr, " ", &rest);
    say(number);
    serialWrite(' ');
    reply(verb, first, rest);
    serialWrite('\n');
  }
}
