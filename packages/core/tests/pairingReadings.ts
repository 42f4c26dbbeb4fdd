/** Whether each kind of error and warning of the pairing table is true, and why. */
export const READINGS: { readonly [kind: string]: string } = {
  'warning level-no-margin/high-to-part':
    'True. These parts run at 5 V and ask 0.7 of it, 3.5 V, for a high; 3.3 V logic gives less already with every supply at its nominal voltage. Many work on the bench because their threshold is really near half the supply, which is why this is a warning and no error; a warm strip or a good USB port ends it.',
  'error level-damage/to-part':
    'True. Chips of 3.3 V without a level shifter on their module get 5 V on their inputs, above the absolute maximum of supply and 0.3 V.',
  'error level-damage/to-board':
    'True. The part drives 5 V into pins that take 3.6 V at most; boards whose pins are 5 V tolerant are not listed.',
  'warning level-no-margin/high-to-board':
    'True. The inputs of the PIC16F1829 are Schmitt triggers that ask 0.8 of 5 V, 4 V, for a high; what runs at 3.3 V never gives that. Its TTL inputs ask 2 V, but not on these pins.',
  'error pullup-missing/bus': 'True. These are bare chips and modules without pull-ups; alone on a bus nothing brings the lines high.',
  'error pullup-missing/one-wire':
    'True. A bare DS18B20 and the probe come without the resistor that the line needs; the module has it and is not listed.',
  'error pullup-wrong-rail/high':
    'True. Modules of 5 V with pull-ups to their supply bring the lines of a 3.3 V board to 5 V; boards with 5 V tolerant bus pins are not listed. On the ATmega2560 board it is the board that has 10 kΩ to 5 V on its bus pins: chips of 3.3 V without a shifter get 4 V and more.',
  'error digit-driver-missing/bare': 'True. The common line of a digit carries the current of all its segments, more than any pin may.',
  'warning port-current-over/chip':
    'True at the worst corner, and all segments lit. The totals are those of the chips: 50 mA for all pins of an RP2040 or of the BCM2711 header, 15 mA for the nRF52840. One digit at a time counts.',
  'error drive-over/over': 'True. A buzzer of 30 mA at a pin that may give less; boards whose pins give 40 mA are not listed.',
  'warning regulator-hot/hot':
    'True, by a little: 222 mA on average, 90 mA of it the chip with its radio, through a small package at 200 K/W. It shuts down only in a warm case.',
  'warning supply-over/peak':
    'True. The peak is above what the rail gives by more than a tenth: servos starting, a radio sending, a matrix with everything lit. Whether all of it is on at once is for the builder to say.',
  'error supply-over/average': 'True. More than a quarter above what the rail gives, all the time: its regulator gets hot or limits.',
  'warning supply-over/average':
    'True, and no error: 60 mA where the 3.3 V output of these boards gives 50 mA over all their revisions; most of them give more.',
  'warning supply-wrong/sags-low':
    'True. The CAN module is specified from 4.75 V; USB less a diode is 4.7 V nominally. It usually runs, outside of what its datasheet promises.',
  'warning supply-wrong/above-range':
    'True. The display is specified to 3.3 V and destroyed above 7 V; on a board with nothing but 5 V it runs, with a pale or dark picture.',
  'error terminal-unwired/one':
    'True. Either the board has no rail of 3.3 V (the two chips alone in a DIP), or no analog input (the BCM2711), or one only (the ESP8266), or too few pins for four digits.',
  'error terminal-unwired/some': 'True. A joystick has two analog outputs, and the BCM2711 no analog input.',
  'error memory-over/over': 'True. The picture is larger than the RAM; the fix works it out in parts, as libraries for small chips do.',
  'warning pin-boot-level/unknown':
    'True. The display needs so many pins that those are used which decide how the board starts, and how an LED with its resistor holds them at reset is not known.',
  'warning pin-caution/contends':
    'True. These boards have one hardware serial port, and programs are loaded over it: a GPS module that talks all the time keeps that from working until its wire is taken off. On the ESP8266 the keypad and the touch display need every pin that there is.',
  'warning pullup-wrong-rail/high':
    'True, and no error: the 1.8 kΩ of this header hold the lines near 3.3 V, and the 10 kΩ of the module to 5 V bring them a little above what the pins take, at the upper end of USB.',
  'error timer-shared/channel': 'True. The PWM pins of this header share two channels: two colours would always be equally bright.',
};
