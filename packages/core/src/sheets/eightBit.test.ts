import { shippedSheets } from '../../tests/catalogue';
import { readSheet } from './readSheet';

test('an address of 8 bits in a sheet is refused with the 7 bits that it means', () => {
  const part = structuredClone(shippedSheets().parts.get('motion-mpu6050')!.sheet) as unknown as {
    bus: { devices: { addresses: { address: number }[] }[] };
  };
  part.bus.devices[0]!.addresses[0]!.address = 0xd0;
  const read = readSheet(part);
  expect(read).toMatchObject({
    ok: false,
    faults: [
      { path: 'bus.devices.0.addresses.0.address', fault: expect.stringContaining('208 (0xD0) is the 8-bit form of 104 (0x68)') as string },
    ],
  });
});
