/** An assessment of each kind of error and warning in the pairing table: whether it is true, and why. */
export const READINGS: { readonly [kind: string]: string } = {
  'warning level-no-margin/high-to-part':
    'True. These parts run at 5 V with VIH = 0.7 VDD = 3.5 V; 3.3 V logic is below that even at nominal voltages. Many work on the bench because the actual threshold is close to VDD/2, so this is a warning and not an error; temperature or a high USB voltage makes it fail.',
  'error level-damage/to-part':
    'True. 3.3 V chips without a level shifter on the module get 5 V on their inputs, above the absolute maximum of VDD + 0.3 V.',
  'error level-damage/to-board':
    'True. The part drives 5 V into pins with an absolute maximum of 3.6 V; boards with 5 V tolerant pins are not listed.',
  'warning level-no-margin/high-to-board':
    'True. The inputs of the PIC16F1829 are Schmitt triggers with VIH = 0.8 VDD = 4 V; parts with 3.3 V outputs do not reach it. Its TTL inputs require 2 V, but these pins have none.',
  'warning bus-overloaded/over':
    'True. A picture of 16 bits per pixel over 1 MHz (ATtiny85) or 4 MHz (8 MHz AVR) takes longer than 200 ms, the rate that the sheet expects; the fix lowers it.',
  'warning memory-over/little': 'True. The frame buffer of 4.7 KiB leaves less than a fifth of 6 KiB; the fix renders it in parts.',
  'warning port-current-over/port':
    'True in the worst case with all segments of a digit lit: the segments share a port of the chip, whose pins together may give 150 mA; larger resistors are the fix.',
  'warning terminal-needs-tie/half':
    'True, and a consequence of the missing supply: on a board without 5 V the contrast trimmer has one end only until the display has its supply.',
  'error pullup-missing/bus': 'True. Bare chips and modules without pull-ups; alone on a bus nothing pulls the lines high.',
  'error pullup-missing/one-wire':
    'True. A bare DS18B20 and the cable probe lack the resistor that the line needs; the module has it and is not listed.',
  'error pullup-wrong-rail/high':
    'True. 5 V modules with pull-ups to their supply pull the lines of a 3.3 V board to 5 V; boards with 5 V tolerant bus pins are not listed. The ATmega2560 board itself has 10 kΩ to 5 V on its bus pins: 3.3 V chips without a shifter get 4 V and more.',
  'error digit-driver-missing/bare':
    'True. The common line of a digit carries the current of all its segments, above the limit of any pin.',
  'warning port-current-over/chip':
    'True in the worst case with all segments lit. Limits of the chips: 50 mA for all pins of the RP2040 or of a 40-pin header, 60 mA for the ATtiny85 and the RA4M1, 15 mA for the nRF52840 and nRF52833. One digit at a time is counted.',
  'error drive-over/over': 'True. A 72 mA relay coil on any pin, and a 30 mA buzzer on a pin with a lower limit.',
  'warning regulator-hot/hot':
    'True, by a small margin: 222 mA on average, 90 mA of it the chip with its radio, in a small package with 200 K/W. It shuts down only in a warm enclosure.',
  'warning supply-over/peak':
    'True. The peak exceeds the limit of the rail by more than 10 %: servo start, radio transmission, a fully lit matrix. The user states what is on at once.',
  'error supply-over/average': 'True. More than 25 % above the limit of the rail continuously: its regulator overheats or limits.',
  'warning supply-over/average':
    'True, and not an error: 60 mA from a 3.3 V output specified for 50 mA over all revisions of these boards; most supply more.',
  'warning supply-wrong/sags-low':
    'True. The CAN module is specified from 4.75 V; USB less a diode is nominally 4.7 V. It usually works, outside its specification.',
  'warning supply-wrong/above-range':
    'True. The display is specified up to 3.3 V with an absolute maximum of 7 V; on a board with 5 V only it works with wrong contrast.',
  'error terminal-unwired/one':
    'True. The board has no 3.3 V rail (bare DIP chips), no 5 V rail (3.3 V mini board, edge connector), no analog input (40-pin headers), only one (ESP8266), no serial port (ATtiny85), or too few pins.',
  'error terminal-unwired/some': 'True. A joystick has two analog outputs, and the boards with a 40-pin header have no analog input.',
  'error memory-over/over': 'True. The frame buffer is larger than the RAM; the fix renders it in parts, as libraries for small chips do.',
  'warning pin-boot-level/unknown':
    'True. The display needs so many pins that boot pins are used, and their level at reset with an LED and its resistor is unknown.',
  'warning pin-caution/contends':
    'True. These boards have one hardware serial port, which is also used for uploads: a GPS module that transmits continuously blocks them until its wire is disconnected. On the ESP8266 the keypad and the touch display need every available pin.',
  'warning pullup-wrong-rail/high':
    'True, and not an error: the 1.8 kΩ of this header hold the lines near 3.3 V, and the 10 kΩ of the module to 5 V raise them slightly above the maximum of the pins at the upper end of USB.',
  'error timer-shared/channel': 'True. The PWM pins of this header share two channels: two colours would always have the same brightness.',
};
