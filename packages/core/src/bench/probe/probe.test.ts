import { shippedSheets } from '../../../tests/catalogue';
import { avrWorld } from '../../../tests/avrWorld';
import { compileAvr, runCpp, runMicroPython } from '../../../tests/compilers';
import type { IndexedBoard } from '../../sheets/sheetIndex';
import { probeAvr, probeMicroPython } from './programs';

const sheets = shippedSheets();
const board = (id: string) => sheets.boards.get(id)!;

/** A world of pins for the probe to feel: pull-ups of a bus, a short, and I2C parts that listen bit by bit. */
const WORLD = `
import sys
PULLED = {4, 5}
SHORTS = [(10, 11)]
PARTS = [0x3c, 0x68]
state = {}

def driven(n):
    return any(state.get(m, ("in", None))[0] == "out" for m in joined(n))

def joined(n):
    return {n} | {b for a, b in SHORTS if a == n} | {a for a, b in SHORTS if b == n}

class Slave:
    def __init__(self):
        self.sda = self.scl = 1
        self.bits = None
        self.ack = False

    def lines(self):
        return (0 if driven(4) else 1, 0 if driven(5) else 1)

    def update(self):
        sda, scl = self.lines()
        if scl and self.scl and sda != self.sda:
            self.bits = [] if not sda else None
            self.ack = False
        elif self.bits is not None and scl and not self.scl and len(self.bits) < 8:
            self.bits.append(sda)
        elif self.bits is not None and not scl and self.scl:
            if self.ack:
                self.ack = False
                self.bits = None
            elif len(self.bits) == 8:
                value = 0
                for bit in self.bits:
                    value = value * 2 + bit
                self.ack = value >> 1 in PARTS and value & 1 == 0
                if not self.ack:
                    self.bits = None
        self.sda, self.scl = sda, scl

slave = Slave()

class Pin:
    IN, OUT, PULL_UP, PULL_DOWN = 0, 1, 2, 3

    def __init__(self, number, mode=0, pull=None, value=None):
        self.number = number
        state[number] = ("out", value) if mode == Pin.OUT else ("in", pull)
        slave.update()
        card.update()

    def value(self):
        if self.number == 16:
            return card.out
        if turning(self.number):
            return 0
        if driven(self.number) or (self.number == 4 and slave.ack):
            return 0
        return 1 if any(m in PULLED or state.get(m, ("in", None))[1] == Pin.PULL_UP for m in joined(self.number)) else 0

# An encoder turns at 14 and 15, somebody turns a knob at 26.
def turning(n):
    now = clock[0] % 10
    return n == 14 and 2 <= now < 6 or n == 15 and 4 <= now < 8

class ADC:
    def __init__(self, pin):
        self.at = 6500

    def read_u16(self):
        self.at = min(60000, self.at + 100)
        return self.at

class PWM:
    def __init__(self, pin):
        pulses.append(pin.number)

    def freq(self, hertz):
        pulses.append(hertz)

    def duty_u16(self, duty):
        pulses.append(duty)

    def deinit(self):
        pulses.append("gone")

pulses = []

# A memory card: 18 clock, 19 in, 16 out, 17 select.
class Card:
    def __init__(self):
        self.clocks, self.bits, self.clock, self.out = 0, [], 0, 1

    def update(self):
        high = lambda n: state.get(n, ("in", None)) == ("out", 1)
        clock = high(18)
        if high(17) or state.get(17, ("in", None))[0] == "in":
            self.clocks += clock and not self.clock
            self.bits, self.out = [], 1
        elif clock and not self.clock:
            self.bits.append(int(high(19)))
        elif self.clock and not clock:
            awake = self.clocks >= 74 and self.bits[:8] == [0, 1, 0, 0, 0, 0, 0, 0]
            self.out = int(len(self.bits) % 8 == 7) if awake and len(self.bits) // 8 == 7 else 1
        self.clock = clock

card = Card()

class Wire:
    def __init__(self, pin):
        self.pin = pin

    def scan(self):
        return [bytearray([0x28, 1, 2, 3, 4, 5, 6, 7])] if self.pin.number == 4 else []

class Machine:
    pass

machine = Machine()
machine.Pin = Pin
machine.ADC = ADC
machine.PWM = PWM
sys.modules["machine"] = machine
onewire = Machine()
onewire.OneWire = Wire
sys.modules["onewire"] = onewire

import time
class Time:
    pass
quick = Time()
quick.sleep_ms = lambda n: None
quick.sleep_us = lambda n: None
quick.ticks_us = lambda: 0
clock = [0]
def ticks():
    clock[0] += 1
    return clock[0]
quick.ticks_ms = ticks
quick.ticks_diff = lambda a, b: a - b
sys.modules["time"] = quick
`;

test('the MicroPython probe finds the parts, the pull-ups and the short of a world of pins, and refuses what is none', () => {
  const program = probeMicroPython(board('rp2040-stick-40'))!.replace('if __name__ == "__main__":\n    main()', '');
  const asked = [
    'hello',
    'scan GP4 GP5',
    'scan GP5 GP4',
    'scan GP6 GP7',
    'read GP4 down',
    'read GP6 down',
    'read GP6 up',
    'link GP10 GP11',
    'link GP10 GP12',
    'read GP99 up',
    'jump GP1 GP2',
    'rise GP4',
    'drive GP6 1 5',
    'walk 5 GP6 GP7',
    'walk 5 GP99',
    'drive GP6 2 5',
    'held GP4',
    'held GP6',
    'search GP4',
    'search GP6',
    'spi GP18 GP19 GP16 GP17 ^ffffffffffffffffffff 400000000095ffffffff',
    'spi GP18 GP19 GP16 GP99 0f01',
    'spi GP18 GP19 - - 0f0',
    'watch GP14 50',
    'watch GP12 50',
    'turn GP14 GP15 50',
    'turn GP15 GP14 50',
    'turn GP14 GP12 50',
    'span GP26 8000',
    'pulse GP9 20000 1500 100',
    'pulse GP9 5 1 100',
  ];
  const out = runMicroPython(
    `${WORLD}\n${program}\nfor line in ${JSON.stringify(asked)}:\n    words = line.split()\n    print(reply(words[0], words[1:]))\nprint(pulses)\n`,
  );
  expect(out.trim().split('\n')).toEqual([
    'ok probe 1 rp2040-stick-40',
    'ok 3c 68',
    'ok none',
    'no scl-low',
    'ok 1',
    'ok 0',
    'ok 1',
    'ok 0',
    'ok 1',
    'no pin GP99',
    'no verb',
    'ok 0',
    'ok',
    'ok 2',
    'no pin GP99',
    'no verb',
    'ok 1',
    'ok 0',
    'ok 2801020304050607',
    'ok none',
    'ok ffffffffffffff01ffff',
    'no pin GP99',
    'no verb',
    'ok 1',
    'ok 0',
    'ok a',
    'ok b',
    'ok none',
    'ok 10 30',
    'ok',
    'no verb',
    "[9, 50, 4915, 'gone']",
  ]);
});

test('the probe in C++ finds what is at the pins of a world of registers', () => {
  const asked = [
    ['hello', 'ok probe 1 atmega328p-5v-shield'],
    ['scan A4 A5', 'ok 3c'],
    ['search D7', 'ok 281102030405067a 28910203040506c5'],
    ['search D4', 'ok none'],
    ['read D7 down', 'ok 1'],
    ['read D4 up', 'ok 1'],
    ['held D4', 'ok 0'],
    ['held D7', 'ok 1'],
    ['spi D13 D11 D12 D10 400000000095ffffffff', 'ok ffffffffffffffffffff'],
    ['spi D13 D11 D12 D10 ^ffffffffffffffffffff 400000000095ffffffff', 'ok ffffffffffffff01ffff'],
    ['spi D13 D11 - - 0f01', 'ok ffff'],
    ['spi D13 D11 D99 - 0f01', 'no pin D99'],
    ['spi D13 D11 - - 0fzz', 'no verb'],
    ['spi D13 D11 - -', 'no verb'],
    ['watch D2 100', 'ok 1'],
    ['watch D4 100', 'ok 0'],
    ['turn D2 D3 100', 'ok a'],
    ['turn D3 D2 100', 'ok b'],
    ['turn D2 D4 100', 'ok none'],
    ['span A0 500', 'ok 10 30'],
    ['span D2 500', 'no converter'],
    ['pulse D9 20000 1500 100', 'ok'],
    ['pulse D9 5 1 100', 'no verb'],
    ['turn D2 D3', 'no verb'],
  ] as const;
  const program = probeAvr(board('atmega328p-5v-shield'))!;
  const out = runCpp({ ...avrWorld(asked.map(([line]) => line)), 'probe.cpp': `#include "world.h"\n${program}` }, 'probe.cpp', 'c++11');
  expect(out.trim().split('\n')).toEqual(asked.map(([, answer], at) => `${at + 1} ${answer}`));
});

test('boards with MicroPython get a program that loads; chips of the ATmega family one for their compiler, others none', () => {
  for (const id of ['esp32-stick-38', 'stm32f411-shield-64', 'round-dial-s3']) {
    const program = probeMicroPython(board(id))!.replace('if __name__ == "__main__":\n    main()', '');
    expect(runMicroPython(`${WORLD}\n${program}\nprint(reply("hello", []), len(PINS) > 8)\n`)).toBe(`ok probe 1 ${id} True\n`);
    expect(probeAvr(board(id))).toBeUndefined();
  }
  compileAvr({ 'probe.cpp': probeAvr(board('atmega328p-5v-shield'))! }, 'probe.cpp');
  compileAvr({ 'probe.cpp': probeAvr(board('atmega2560-5v-shield'))! }, 'probe.cpp', 'atmega2560');
  compileAvr({ 'probe.cpp': probeAvr(board('atmega32a-5v-dip-40'))! }, 'probe.cpp', 'atmega32a');
});

test('a probe is there only for boards on which it can run', () => {
  const offered = (make: (of: IndexedBoard) => string | undefined) =>
    [...sheets.boards.values()].filter((one) => make(one) !== undefined).map(({ sheet }) => sheet.chip);
  const python = offered(probeMicroPython);
  expect(python).toEqual(expect.arrayContaining(['RP2040', 'RP2350', 'ESP32', 'ESP32-S3', 'ESP32-C3', 'ESP8266', 'STM32F411RE']));
  for (const chip of ['ATmega328P', 'ATmega32A', 'PIC16F1829', 'BCM2711', 'STM32F103C8', 'KL25Z128']) expect(python).not.toContain(chip);
  expect(offered(probeAvr).every((chip) => chip.startsWith('ATmega'))).toBe(true);
});
