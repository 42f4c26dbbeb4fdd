# Probe for BOARD_TITLE: answers line protocol 1 on the board's console.
# It drives nothing unless it is asked to, and lets every pin go again.
import sys
import time
from machine import Pin

try:
    from machine import ADC
except ImportError:
    ADC = None
try:
    from machine import PWM
except ImportError:
    PWM = None
try:
    from onewire import OneWire
except ImportError:
    OneWire = None

BOARD = "BOARD_ID"
PINS = {"GP2": 2}


def free(name):
    return Pin(PINS[name], Pin.IN)


def low(name):
    return Pin(PINS[name], Pin.OUT, value=0)


def level(name):
    return free(name).value()


def read(name, way):
    if way == "down" and not hasattr(Pin, "PULL_DOWN"):
        # Without pull-downs a pin is emptied, left alone for a moment, and then read.
        # Shorter than a reset of 1-Wire: its parts would pull the line low for their answer.
        low(name)
        time.sleep_us(100)
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
    time.sleep_us(100)
    pin = free(name)
    begun = time.ticks_us()
    while True:
        passed = time.ticks_diff(time.ticks_us(), begun)
        if pin.value():
            return "ok %d" % passed
        if passed > 20000:
            return "ok never"


def longest(word, most=5000):
    return min(most, int(word)) if word.isdigit() else 0


def held(name):
    return "ok %d" % (read(name, "up") == read(name, "down"))


def passed(begun):
    return time.ticks_diff(time.ticks_ms(), begun)


def watch(name, milliseconds):
    pin = Pin(PINS[name], Pin.IN, Pin.PULL_UP)
    time.sleep_ms(2)
    first = pin.value()
    begun = time.ticks_ms()
    while passed(begun) < milliseconds:
        if pin.value() != first:
            free(name)
            return "ok 1"
    free(name)
    return "ok 0"


def turn(a, b, milliseconds):
    first = Pin(PINS[a], Pin.IN, Pin.PULL_UP)
    second = Pin(PINS[b], Pin.IN, Pin.PULL_UP)
    time.sleep_ms(2)
    said = "ok none"
    leads = None
    # At rest both phases are high; the one that goes low alone leads, and the other must follow.
    begun = time.ticks_ms()
    while passed(begun) < milliseconds:
        levels = (first.value(), second.value())
        if leads is None and levels == (0, 1):
            leads = "a"
        elif leads is None and levels == (1, 0):
            leads = "b"
        elif levels == (1, 1):
            leads = None
        elif levels == (0, 0) and leads:
            said = "ok " + leads
            break
    free(a)
    free(b)
    return said


def span(name, milliseconds):
    if ADC is None:
        return "no converter"
    converter = ADC(Pin(PINS[name]))
    least, most = 65535, 0
    begun = time.ticks_ms()
    while passed(begun) < milliseconds:
        value = converter.read_u16()
        least, most = min(least, value), max(most, value)
        if most - least > 13107:
            break
    free(name)
    return "ok %d %d" % (least * 100 // 65535, most * 100 // 65535)


def pulse(name, period, high, milliseconds):
    if PWM is None:
        return "no pulses"
    if not 10 <= period <= 100000 or high > period:
        return "no verb"
    pulses = PWM(Pin(PINS[name]))
    pulses.freq(1000000 // period)
    pulses.duty_u16(65535 * high // period)
    time.sleep_ms(milliseconds)
    pulses.deinit()
    free(name)
    return "ok"


def set_pin(name, high):
    Pin(PINS[name], Pin.OUT, value=1 if high else 0)


def spi(names, words):
    clock, data, back, select = names
    used = [name for name in names if name != "-"]
    # Pulled up, so that nobody there reads as ones.
    pulled = Pin(PINS[back], Pin.IN, Pin.PULL_UP) if back != "-" else None
    set_pin(clock, 0)
    if select != "-":
        set_pin(select, 1)
    said = ""
    for word in words:
        asleep = word.startswith("^")
        if select != "-" and not asleep:
            set_pin(select, 0)
        got = []
        for byte in bytes.fromhex(word[1:] if asleep else word):
            value = 0
            for bit in range(7, -1, -1):
                set_pin(data, byte >> bit & 1)
                set_pin(clock, 1)
                value = value * 2 + (pulled.value() if pulled else 1)
                set_pin(clock, 0)
            got.append("%02x" % value)
        if select != "-":
            set_pin(select, 1)
        said = "".join(got)
    for name in used:
        free(name)
    return "ok " + said


def search(name):
    if OneWire is None:
        return "no 1-Wire"
    free(name)
    time.sleep_ms(1)
    if not level(name):
        return "ok none"
    found = OneWire(Pin(PINS[name])).scan()
    free(name)
    return "ok " + (" ".join("".join("%02x" % byte for byte in code) for code in found) or "none")


def asked_pins(verb, words):
    if verb in ("read", "drive", "watch", "span", "pulse"):
        return words[:1]
    if verb == "turn":
        return words[:2]
    if verb == "spi":
        return [word for word in words[:4] if word != "-"]
    return words[1:] if verb == "walk" else words


def is_hex(word):
    word = word[1:] if word.startswith("^") else word
    return len(word) > 0 and len(word) % 2 == 0 and all(c in "0123456789abcdef" for c in word)


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
    for name in asked_pins(verb, words):
        if name not in PINS:
            return "no pin " + name[:20]
    if len(words) == 2:
        if verb == "scan":
            return scan(words[0], words[1])
        if verb == "read" and words[1] in ("up", "down"):
            return read(words[0], words[1])
        if verb == "link":
            return link(words[0], words[1])
        if verb == "watch":
            return watch(words[0], longest(words[1], 10000))
        if verb == "span":
            return span(words[0], longest(words[1], 10000))
    if verb == "rise" and len(words) == 1:
        return rise(words[0])
    if verb == "held" and len(words) == 1:
        return held(words[0])
    if verb == "search" and len(words) == 1:
        return search(words[0])
    if verb == "turn" and len(words) == 3:
        return turn(words[0], words[1], longest(words[2], 10000))
    if verb == "pulse" and len(words) == 4:
        return pulse(words[0], longest(words[1], 100000), longest(words[2], 100000), longest(words[3]))
    if verb == "spi" and len(words) > 4 and "-" not in words[:2] and all(is_hex(word) for word in words[4:]):
        return spi(words[:4], words[4:])
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
            print("# unknown command")
            continue
        print(words[0], reply(words[1], words[2:]))


if __name__ == "__main__":
    main()
