/** Words for one thing: who types any of them finds the parts that have another. In lower case; only whole words count. */
const GROUPS: readonly (readonly string[])[] = [
  ['level shifter', 'level converter', 'logic converter', 'level translator', 'logic level', 'voltage translator'],
  ['lcd', 'liquid crystal', 'character display'],
  ['potentiometer', 'pot', 'poti', 'knob', 'variable resistor'],
  ['temperature', 'thermometer', 'temp'],
  ['humidity', 'hygrometer', 'moisture'],
  ['pressure', 'barometer', 'altimeter'],
  ['compass', 'magnetometer'],
  ['motion', 'accelerometer', 'gyroscope', 'gyro', 'imu'],
  ['photoresistor', 'ldr', 'light dependent resistor'],
  ['light', 'lux', 'ambient light', 'illuminance'],
  ['button', 'push button', 'tactile switch', 'momentary switch'],
  ['buzzer', 'piezo', 'beeper', 'speaker'],
  ['clock', 'rtc', 'real time clock', 'real-time clock'],
  ['7 segment', 'seven segment', '7-segment', 'segment', 'digits'],
  ['distance', 'ultrasonic', 'rangefinder', 'time of flight', 'tof', 'lidar'],
  ['infrared', 'ir'],
  ['microphone', 'mic', 'sound sensor'],
  ['keypad', 'keyboard', 'key matrix'],
  ['encoder', 'rotary encoder', 'rotary'],
  ['display', 'screen'],
  ['epaper', 'e-paper', 'eink', 'e-ink', 'electronic paper'],
  ['led strip', 'addressable leds', 'rgb strip', 'strip'],
  ['port expander', 'io expander', 'i/o expander', 'gpio expander', 'expander'],
  ['multiplexer', 'mux', 'switch i2c'],
  ['sd card', 'memory card', 'microsd', 'card'],
  ['gps', 'gnss', 'satellite'],
  ['radio', 'wireless', 'transceiver'],
  ['regulator', 'ldo', 'voltage regulator'],
  ['converter', 'buck', 'step down', 'step-down', 'dc-dc'],
  ['supply', 'psu', 'power supply', 'adapter'],
  ['motor', 'motor driver', 'h-bridge', 'h bridge'],
  ['stepper', 'stepper motor'],
  ['load cell', 'scale', 'weight', 'hx711'],
  ['co2', 'carbon dioxide'],
  ['air quality', 'voc', 'gas'],
  ['heart', 'pulse', 'oximeter'],
  ['colour', 'color'],
];

/** A phrase as whole words of a text. */
const phrase = (words: string): RegExp =>
  new RegExp(`(?<![\\p{L}\\d])${words.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&')}s?(?![\\p{L}\\d])`, 'u');

const PATTERNS = GROUPS.map((group) => group.map((words) => ({ words, pattern: phrase(words) })));

/** So many ways to say a query are tried; a query has few phrases. */
const MOST = 24;

/** A query in other words: with one phrase of it in place of each that means the same, the query itself first.
 *  @param text in lower case
 *  @example inOtherWords('level converter') // ['level converter', 'level shifter', 'logic converter', ...] */
export function inOtherWords(text: string): readonly string[] {
  const ways = new Set([text]);
  for (const group of PATTERNS) {
    // The longest phrase of a group that occurs: "stepper motor" before "stepper".
    const met = group.filter(({ pattern }) => pattern.test(text)).toSorted((a, b) => b.words.length - a.words.length)[0];
    if (!met) continue;
    for (const { words } of group) if (words !== met.words && ways.size < MOST) ways.add(text.replace(met.pattern, words));
  }
  return [...ways];
}
