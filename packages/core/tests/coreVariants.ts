/** What the usual programs of each board call its header pins, as their core's variant files and the prints of the boards have it; written down
 *  here apart from the sheets, so that an export can be held against it. */

/** `D0:26` for a number, `D10:PB6` for a port. */
const listed = (text: string): ReadonlyMap<string, string> => new Map(text.split(/\s+/).map((one) => one.split(':') as [string, string]));

/** The digits at the end of a pin's print, and others where it has none or is counted otherwise. */
const printed =
  (others = '') =>
  (pin: string): string | undefined => {
    const known = others === '' ? undefined : listed(others).get(pin);
    return known ?? /(\d+)$/.exec(pin)?.[1];
  };

const from = (text: string) => {
  const names = listed(text);
  return (pin: string): string | undefined => names.get(pin);
};

/** Digital numbers: D13 is 13, A0 follows the last digital one. */
const digital = (firstAnalog: number, others = '') => {
  const names = others === '' ? undefined : listed(others);
  return (pin: string): string | undefined => {
    const analog = /^A(\d+)$/.exec(pin)?.[1];
    return names?.get(pin) ?? (analog === undefined ? /^D(\d+)$/.exec(pin)?.[1] : String(firstAnalog + Number(analog)));
  };
};

const SHIELD_64 =
  'D0:PA3 D1:PA2 D2:PA10 D3:PB3 D4:PB5 D5:PB4 D6:PB10 D7:PA8 D8:PA9 D9:PC7 D10:PB6 D11:PA7 D12:PA6 D13:PA5 D14:PB9 D15:PB8 A0:PA0 A1:PA1 A2:PA4 A3:PB0 A4:PC1 A5:PC0';
const own = (pin: string): string => pin;
const orOwn = (text: string) => {
  const names = listed(text);
  return (pin: string): string => names.get(pin) ?? pin;
};

/** Number or port by board and header pin; undefined for a pin that no program can name. */
export const CORE_NAMES: { readonly [board: string]: (pin: string) => string | undefined } = {
  'atmega2560-5v-shield': digital(54),
  'atmega328p-5v-shield': digital(14),
  'atmega328p-5v-stick-30': digital(14, 'RX0:0 TX1:1'),
  'atmega32a-5v-dip-40': own,
  'atmega32u4-5v-shield': digital(18, 'MISO:14 SCK:15 MOSI:16 RXLED:17'),
  'bcm2711-sbc-40': printed(),
  'esp32-c3-stick-16': printed(),
  'esp32-s3-stick-44': printed('TX:43 RX:44'),
  'esp32-stick-38': printed('VP:36 VN:39 TX:1 RX:3'),
  'esp8266-stick-30': from('D0:16 D1:5 D2:4 D3:0 D4:2 D5:14 D6:12 D7:13 D8:15 RX:3 TX:1 SD2:9 SD3:10'),
  'kl25z-shield': orOwn(
    'D0:PTA1 D1:PTA2 D2:PTD4 D3:PTA12 D4:PTA4 D5:PTA5 D6:PTC8 D7:PTC9 D8:PTA13 D9:PTD5 D10:PTD0 D11:PTD2 D12:PTD3 D13:PTD1 D14:PTE0 D15:PTE1 A0:PTB0 A1:PTB1 A2:PTB2 A3:PTB3 A4:PTC2 A5:PTC1',
  ),
  'nrf52840-stamp-14': digital(0),
  'pic16f1829-5v-dip-20': own,
  'rp2040-stamp-14': from('D0:26 D1:27 D2:28 D3:29 D4:6 D5:7 D6:0 D7:1 D8:2 D9:4 D10:3'),
  'rp2040-stick-40': printed(),
  'rp2350-stick-40': printed(),
  'samd21-stamp-14': digital(0),
  'stm32f103-stick-40': (pin) => `P${pin}`,
  'stm32f411-shield-64': orOwn(SHIELD_64),
  'stm32f446-shield-64': orOwn(SHIELD_64),
};
