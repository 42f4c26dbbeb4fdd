import { shippedSheets } from '../../../tests/catalogue';
import { compileAvr, runMicroPython } from '../../../tests/compilers';
import { probeAvr } from './avr';
import { probeMicroPython } from './microPython';

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

    def value(self):
        if driven(self.number) or (self.number == 4 and slave.ack):
            return 0
        return 1 if any(m in PULLED or state.get(m, ("in", None))[1] == Pin.PULL_UP for m in joined(self.number)) else 0

class Machine:
    pass

machine = Machine()
machine.Pin = Pin
sys.modules["machine"] = machine

import time
class Time:
    pass
quick = Time()
quick.sleep_ms = lambda n: None
quick.sleep_us = lambda n: None
quick.ticks_us = lambda: 0
quick.ticks_diff = lambda a, b: a - b
sys.modules["time"] = quick
`;

test('the MicroPython probe finds the parts, the pull-ups and the short of a world of pins, and refuses what is none', () => {
  const program = probeMicroPython(board('rp2040-stick-40')).replace('if __name__ == "__main__":\n    main()', '');
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
  ];
  const out = runMicroPython(
    `${WORLD}\n${program}\nfor line in ${JSON.stringify(asked)}:\n    words = line.split()\n    print(reply(words[0], words[1:]))\n`,
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
  ]);
});

test('every board gets a MicroPython program that loads; chips of the ATmega family one for their compiler, others none', () => {
  for (const id of ['esp32-stick-38', 'stm32f411-shield-64', 'round-dial-s3']) {
    const program = probeMicroPython(board(id)).replace('if __name__ == "__main__":\n    main()', '');
    expect(runMicroPython(`${WORLD}\n${program}\nprint(reply("hello", []), len(PINS) > 8)\n`)).toBe(`ok probe 1 ${id} True\n`);
    expect(probeAvr(board(id))).toBeUndefined();
  }
  compileAvr({ 'probe.cpp': probeAvr(board('atmega328p-5v-shield'))! }, 'probe.cpp');
  compileAvr({ 'probe.cpp': probeAvr(board('atmega2560-5v-shield'))! }, 'probe.cpp', 'atmega2560');
  compileAvr({ 'probe.cpp': probeAvr(board('atmega32a-5v-dip-40'))! }, 'probe.cpp', 'atmega32a');
});
