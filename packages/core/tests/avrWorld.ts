/** Headers with which the probe for ATmega chips runs on the host, at the pins of a small world: two parts on 1-Wire at D7, a memory
 *  card on SPI (D13 clock, D11 in, D12 out, D10 select), an I2C part at A4 and A5, an encoder that turns at D2 and D3, a knob at A0. */
export const avrWorld = (asked: readonly string[]): { readonly [name: string]: string } => ({
  'avr/io.h': IO,
  'util/delay.h': '#pragma once\nvoid tick(double us);\n#define _delay_us(n) tick(n)\n#define _delay_ms(n) tick(1000.0 * (n))\n',
  'world.h': WORLD.replace('@ASKED@', asked.map((line, at) => `${at + 1} ${line}\\n`).join('')),
});

const IO = `#pragma once
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#define _BV(b) (1 << (b))
extern volatile uint8_t DDRB, PORTB, PINB, DDRC, PORTC, PINC, DDRD, PORTD, PIND;
struct Serial {
  operator uint8_t();
  Serial &operator=(uint8_t c);
};
extern Serial UDR0;
static uint8_t UCSR0B, ADMUX;
static uint16_t UBRR0;
#define UBRR0 UBRR0
enum { U2X0 = 1, RXC0 = 7, UDRE0 = 5, RXEN0 = 4, TXEN0 = 3, REFS0 = 6, ADEN = 7, ADSC = 6, ADPS2 = 2, ADPS1 = 1, ADPS0 = 0 };
struct Ready {
  operator uint8_t() { return 0xff; }
  Ready &operator=(int) { return *this; }
};
static Ready ready;
#define UCSR0A ready
struct Converting {
  operator int() { return 0; }
  Converting &operator=(int) { return *this; }
  Converting &operator|=(int) { return *this; }
};
static Converting ADCSRA;
struct Knob {
  operator uint16_t();
};
static Knob ADC;
inline char *utoa(unsigned value, char *text, int) {
  sprintf(text, "%u", value);
  return text;
}
`;

const WORLD = `#include "avr/io.h"
#include "util/delay.h"
#include <string.h>
volatile uint8_t DDRB, PORTB, PINB, DDRC, PORTC, PINC, DDRD, PORTD, PIND;
Serial UDR0;
static const char *asked = "@ASKED@";
Serial::operator uint8_t() {
  if (!*asked) exit(0);
  return static_cast<uint8_t>(*asked++);
}
Serial &Serial::operator=(uint8_t c) {
  putchar(c);
  return *this;
}
static double now = 0;
static int turned = 0;
Knob::operator uint16_t() { return static_cast<uint16_t>(100 + (turned = turned < 900 ? turned + 3 : 900)); }

struct Wire {
  uint8_t code[8];
  bool was = true, joined = false;
  double fell = 0, rose = 0, until = 0;
  int command = 0, step = 0, phase = 0;
  bool bit() const { return code[step >> 3] >> (step & 7) & 1; }
  bool holds(bool level) {
    if (level != was) {
      was = level;
      if (!level) {
        fell = now;
        const bool sends = joined && command >= 8 && phase < 2;
        if (sends && (phase == 0 ? !bit() : bit())) until = now + 30;
      } else {
        const double low = now - fell;
        rose = now;
        if (low > 400) {
          joined = true;
          command = step = phase = 0;
        } else if (joined && command < 8)
          command++;
        else if (joined && phase < 2)
          phase++;
        else if (joined) {
          if ((low < 15) != bit()) joined = false;
          phase = 0;
          if (++step == 64) joined = false;
        }
      }
    }
    const bool present = joined && command == 0 && now - rose > 20 && now - rose < 150 && rose > 0;
    return present || now < until;
  }
};
static Wire wires[2];

struct Card {
  bool was = false, out = true;
  int clocks = 0, bits = 0, in = 0;
  uint8_t got[32];
  void see(bool select, bool clock, bool data) {
    if (select) {
      if (clock && !was) clocks++;
      bits = in = 0;
      out = true;
    } else if (clock && !was) {
      in = in << 1 | data;
      if (++bits % 8 == 0) got[(bits / 8 - 1) & 31] = static_cast<uint8_t>(in);
    } else if (!clock && was) {
      const bool awake = clocks >= 74 && got[0] == 0x40 && got[5] == 0x95;
      out = bits / 8 == 7 && awake ? bits % 8 == 7 : true;
    }
    was = clock;
  }
};
static Card card;

struct Listener {
  bool sda = true, scl = true, ack = false, busy = false;
  int bits = 0, byte = 0;
  void see(bool data, bool clock) {
    if (clock && scl && data != sda) {
      busy = !data;
      bits = byte = 0;
      ack = false;
    } else if (busy && clock && !scl && bits < 8) {
      byte = byte << 1 | data;
      bits++;
    } else if (busy && !clock && scl) {
      if (ack) {
        ack = busy = false;
      } else if (bits == 8)
        busy = ack = byte == 0x3c << 1;
    }
    sda = data;
    scl = clock;
  }
};
static Listener listener;

// A pin's level: driven, held low by a part, pulled up outside or inside.
static bool at(volatile uint8_t &ddr, volatile uint8_t &port, int bit, bool held, bool pulled) {
  if (ddr >> bit & 1) return (port >> bit & 1) && !held;
  return !held && (pulled || (port >> bit & 1));
}
static void put(volatile uint8_t &in, int bit, bool level) { in = static_cast<uint8_t>((in & ~(1 << bit)) | level << bit); }
static void settle() {
  bool level = at(DDRD, PORTD, 7, false, true);
  bool held = wires[0].holds(level) | wires[1].holds(level);
  level = level && !held;
  for (Wire &wire : wires) wire.was = at(DDRD, PORTD, 7, false, true);
  put(PIND, 7, level);
  const bool select = at(DDRB, PORTB, 2, false, true), clock = at(DDRB, PORTB, 5, false, false), data = at(DDRB, PORTB, 3, false, false);
  card.see(select, clock, data);
  put(PINB, 4, at(DDRB, PORTB, 4, !select && !card.out, false));
  const bool sda = at(DDRC, PORTC, 4, listener.ack, true), scl = at(DDRC, PORTC, 5, false, true);
  listener.see(sda, scl);
  put(PINC, 4, at(DDRC, PORTC, 4, listener.ack, true));
  put(PINC, 5, scl);
  const long turn = static_cast<long>(now / 1000) % 10;
  put(PIND, 2, at(DDRD, PORTD, 2, turn >= 2 && turn < 6, false));
  put(PIND, 3, at(DDRD, PORTD, 3, turn >= 4 && turn < 8, false));
  put(PIND, 4, at(DDRD, PORTD, 4, false, false));
}
void tick(double us) {
  settle();
  now += us;
  settle();
}
static struct Start {
  Start() {
    const uint8_t first[8] = {0x28, 0x11, 2, 3, 4, 5, 6, 0x7a}, second[8] = {0x28, 0x91, 2, 3, 4, 5, 6, 0xc5};
    memcpy(wires[0].code, first, 8);
    memcpy(wires[1].code, second, 8);
  }
} start;
`;
