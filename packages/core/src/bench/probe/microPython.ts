import { pinNumber } from '../../outputs/constants/constantSet';
import type { IndexedBoard } from '../../sheets/sheetIndex';
import { inComment } from '../../outputs/constants/names';

/** The program that answers the line protocol on a board with MicroPython. Pins of chips without GPIO numbers go by the name of their port. */
export function probeMicroPython(board: IndexedBoard): string {
  const isGpio = board.sheet.pins.list.some((pin) => /^GPIO\d+$/.test(pin.port ?? ''));
  const pins = board.sheet.pins.list.flatMap((pin) => {
    if (pin.kind !== 'io' || pin.sameAs || pin.grade === 'reserved') return [];
    const number = isGpio ? pinNumber(pin) : undefined;
    return number === undefined && isGpio ? [] : [`    "${pin.id}": ${isGpio ? number : JSON.stringify(pin.port ?? pin.label)},`];
  });
  return `# Probe for ${inComment(board.sheet.title)}: answers line protocol 1 on the board's console.
# It drives nothing unless it is asked to, and lets every pin go again.
import sys
import time
from machine import Pin

BOARD = "${board.sheet.id}"
PINS = {
${pins.join('\n')}
}


def free(name):
    return Pin(PINS[name], Pin.IN)


def low(name):
    return Pin(PINS[name], Pin.OUT, value=0)


def level(name):
    return free(name).value()


def read(name, way):
    if way == "down" and not hasattr(Pin, "PULL_DOWN"):
        # Without pull-downs a pin is emptied, left alone for a moment, and then read.
        low(name)
        time.sleep_ms(1)
        pin = free(name)
        time.sleep_us(50)
    else:
        pin = Pin(PINS[name], Pin.IN, Pin.PULL_UP if way == "up" else Pin.PULL_DOWN)
        time.sleep_ms(2)
    value = pin.value()
    free(name)
    return "ok %d" % value


def link(drive, other):
    pin = Pin(PINS[other], Pin.IN, Pin.PULL_UP)
    low(drive)
    time.sleep_ms(2)
    value = pin.value()
    free(drive)
    free(other)
    return "ok %d" % value


def drive(name, way, milliseconds):
    Pin(PINS[name], Pin.OUT, value=1 if way == "1" else 0)
    time.sleep_ms(milliseconds)
    free(name)
    return "ok"


def walk(milliseconds, names):
    for name in names:
        drive(name, "1", milliseconds)
    return "ok %d" % len(names)


def rise(name):
    low(name)
    time.sleep_ms(1)
    pin = free(name)
    begun = time.ticks_us()
    while True:
        passed = time.ticks_diff(time.ticks_us(), begun)
        if pin.value():
            return "ok %d" % passed
        if passed > 20000:
            return "ok never"


def longest(word):
    return min(5000, int(word)) if word.isdigit() else 0


class Lines:
    """An I2C bus by hand, slow enough for any wire."""

    def __init__(self, sda, scl):
        self.sda = sda
        self.scl = scl

    def data(self, high):
        free(self.sda) if high else low(self.sda)
        time.sleep_us(10)

    def clock(self, high):
        free(self.scl) if high else low(self.scl)
        time.sleep_us(10)
        # A part may hold the clock.
        for _ in range(100):
            if not high or level(self.scl):
                return
            time.sleep_us(20)

    def answers(self, address):
        self.data(0)
        self.clock(0)
        for bit in range(7, -1, -1):
            self.data((address << 1) >> bit & 1)
            self.clock(1)
            self.clock(0)
        self.data(1)
        self.clock(1)
        heard = level(self.sda) == 0
        self.clock(0)
        self.data(0)
        self.clock(1)
        self.data(1)
        return heard


def scan(sda, scl):
    free(sda)
    free(scl)
    time.sleep_ms(1)
    if not level(scl):
        return "no scl-low"
    if not level(sda):
        return "no sda-low"
    lines = Lines(sda, scl)
    found = ["%02x" % address for address in range(8, 120) if lines.answers(address)]
    return "ok " + (" ".join(found) or "none")


def reply(verb, words):
    if verb == "hello":
        return "ok probe 1 " + BOARD
    pins = words[:1] if verb in ("read", "drive") else words[1:] if verb == "walk" else words
    for name in pins:
        if name not in PINS:
            return "no pin " + name[:20]
    if len(words) == 2:
        if verb == "scan":
            return scan(words[0], words[1])
        if verb == "read" and words[1] in ("up", "down"):
            return read(words[0], words[1])
        if verb == "link":
            return link(words[0], words[1])
    if verb == "rise" and len(words) == 1:
        return rise(words[0])
    if verb == "drive" and len(words) == 3 and words[1] in ("0", "1"):
        return drive(words[0], words[1], longest(words[2]))
    if verb == "walk" and len(words) > 1:
        return walk(longest(words[0]), words[1:])
    return "no verb"


def main():
    while True:
        line = sys.stdin.readline()
        if not line:
            return
        words = line.split()
        if len(words) < 2 or not words[0].isdigit():
            print("# what is that?")
            continue
        print(words[0], reply(words[1], words[2:]))


if __name__ == "__main__":
    main()
`;
}
