import { shippedSheets } from '../../tests/catalogue';
import { expectCheck, findingsOf, remedied } from '../../tests/checkHarness';
import { add, edited, shield, stick, wire } from '../../tests/makePlan';
import type { Edit } from '../plan/edit';

const sheets = shippedSheets();
const bus = (id: string): Edit[] => [wire(`${id}:SDA`, 'GP4'), wire(`${id}:SCL`, 'GP5')];

describe('address-also-answers', () => {
  const both = edited(
    stick(),
    sheets,
    add('p', 'pwm-pca9685', 'Lamps'),
    add('m', 'multiplexer-tca9548a', 'Switch'),
    ...bus('p'),
    ...bus('m'),
  );

  test('an all-call address meets a multiplexer; strapping that one away helps', () => {
    expectCheck('address-also-answers', both, sheets, [
      {
        message: 'meets',
        level: 'risk',
        title: 'Lamps also answers on 0x70, where Switch is',
        remedies: [expect.stringMatching(/^Strap Switch A[0-2] to 3V3: 0x7[1-7]$/) as string],
      },
    ]);
    expect(findingsOf(remedied('address-also-answers', both, sheets), sheets).map((f) => f.code)).not.toContain('address-also-answers');
  });

  test('behind an open channel it meets the multiplexer itself, and whoever is before it', () => {
    const behind = edited(both, sheets, wire('p:SDA', 'm:SD0'), wire('p:SCL', 'm:SC0'));
    expectCheck('address-also-answers', behind, sheets, [
      {
        message: 'meets',
        level: 'risk',
        title: 'Lamps also answers on 0x70, where Switch is',
        remedies: [expect.stringMatching(/^Strap Switch A[0-2] to 3V3: 0x7[1-7]$/) as string],
      },
    ]);
    expect(findingsOf(remedied('address-also-answers', behind, sheets), sheets).map((f) => f.code)).not.toContain('address-also-answers');
  });

  test('on two buses they never meet', () => {
    expectCheck('address-also-answers', edited(both, sheets, wire('m:SDA', 'GP2'), wire('m:SCL', 'GP3')), sheets, []);
  });
});

describe('pin-direction', () => {
  const card = (...more: Edit[]) =>
    edited(
      shield(),
      sheets,
      add('s', 'sd-card-5v-module', 'Card'),
      add('b', 'button-push', 'Start'),
      wire('s:SCK', 'D13'),
      wire('s:MOSI', 'D11'),
      wire('s:MISO', 'D12'),
      ...more,
    );
  const button = [...sheets.parts.get('button-push')!.terminals.values()].find((t) => t.role === 'gpio.in')!.id;

  test('an input on the hardware select while the bus is in use; an output there is well, and so is an idle bus', () => {
    expectCheck('pin-direction', card(wire(`b:${button}`, 'D10')), sheets, [
      {
        message: 'select',
        level: 'risk',
        title: expect.stringMatching(/^Start .* may stop SPI/) as string,
        remedies: [expect.stringMatching(/^Move Start .* to D\d+$/) as string],
      },
    ]);
    expectCheck('pin-direction', card(wire('s:CS', 'D10')), sheets, []);
    expectCheck('pin-direction', edited(shield(), sheets, add('b', 'button-push'), wire(`b:${button}`, 'D10')), sheets, []);
    expect(findingsOf(remedied('pin-direction', card(wire(`b:${button}`, 'D10')), sheets), sheets).map((f) => f.code)).not.toContain(
      'pin-direction',
    );
  });
});
