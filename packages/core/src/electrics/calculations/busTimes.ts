import { firstOrThrow } from '../../collections/orThrow';
import { formatSi } from '../../quantity/format';
import { busTime, I2C_FRAMES } from '../formulas/i2cTime';
import { spiTime } from '../formulas/spiTime';
import { type Calculation, finite, outputText, whole } from './calculation';
import { SPI_GUIDE } from '../formulas/documents';

export const busTimes: Calculation = {
  id: 'bus-time',
  words: 'Bus time and utilisation of an access on an I2C bus.',
  inputs: [
    { name: 'hz', words: 'clock', unit: 'Hz', default: '400k' },
    { name: 'write', words: 'bytes written per transfer, after the address', unit: '1' },
    { name: 'read', words: 'bytes read per transfer', unit: '1', default: '0' },
    { name: 'transfers', words: 'transfers per access', unit: '1', default: '1' },
    { name: 'rate', words: 'accesses per second', unit: '1', default: '1' },
  ],
  outputs: [
    { name: 'bits', unit: '1', words: 'bits per access' },
    { name: 'seconds', unit: 's', words: 'time per access' },
    { name: 'share', unit: '1', words: 'bus utilisation, as a fraction' },
    { name: 'mostPerSecond', unit: '1', words: 'maximum accesses per second' },
  ],
  source: 'I2C-bus specification UM10204, 3.1',
  run(values) {
    const transfers = [{ times: Math.max(1, whole(values, 'transfers')), write: whole(values, 'write'), read: whole(values, 'read') }];
    const { users, share, working } = busTime(values.number('hz'), [{ id: 'part', transfers, perSecond: values.number('rate') }]);
    const { bits, seconds, alonePerSecond } = firstOrThrow(users);
    const most = finite(alonePerSecond);
    return {
      outputs: { bits, seconds, share, mostPerSecond: most },
      working: [
        {
          formula: 't = bits / clock; rate ≤ 1 / t',
          values: `${bits} / ${formatSi(values.number('hz'), 'Hz')} = ${formatSi(seconds, 's')}; 1 / ${formatSi(seconds, 's')} = ${outputText(most, '1')}`,
          source: I2C_FRAMES,
        },
        ...working.map((step) => ({ ...step, values: `${step.values} = ${outputText(share, '1')}` })),
      ],
    };
  },
};

export const spiTimes: Calculation = {
  id: 'spi-time',
  words: 'Bus time and utilisation of an access on an SPI bus, by one device or a daisy chain, without gaps between bytes.',
  inputs: [
    { name: 'hz', words: 'clock', unit: 'Hz', default: '10M' },
    { name: 'bytes', words: 'bytes sent and read per transfer', unit: '1', default: '1' },
    { name: 'transfers', words: 'transfers per access', unit: '1', default: '1' },
    { name: 'parts', words: 'devices in the daisy chain, each receiving these bytes', unit: '1', default: '1' },
    { name: 'rate', words: 'accesses per second', unit: '1', default: '1' },
  ],
  outputs: [
    { name: 'bits', unit: '1', words: 'bits per access' },
    { name: 'seconds', unit: 's', words: 'time per access' },
    { name: 'share', unit: '1', words: 'bus utilisation, as a fraction' },
    { name: 'mostPerSecond', unit: '1', words: 'maximum accesses per second' },
  ],
  source: SPI_GUIDE,
  run(values) {
    const bits = 8 * whole(values, 'bytes') * Math.max(1, whole(values, 'transfers')) * Math.max(1, whole(values, 'parts'));
    const { working, ...outputs } = spiTime(values.number('hz'), bits, values.number('rate'));
    return { outputs: { ...outputs, mostPerSecond: finite(outputs.mostPerSecond) }, working };
  },
};
