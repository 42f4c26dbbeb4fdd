import { phoneOrigin } from './PhoneCode';

const LAN = ['http://192.168.1.20:4310', 'http://workshop:4310'];
const at = (origin: string) => ({ origin, hostname: new URL(origin).hostname });

test('on this machine the address is that of the network; elsewhere the one that was typed; on loopback alone there is none', () => {
  expect(phoneOrigin(at('http://localhost:4310'), LAN)).toBe('http://192.168.1.20:4310');
  expect(phoneOrigin(at('http://[::1]:4310'), LAN)).toBe('http://192.168.1.20:4310');
  expect(phoneOrigin(at('https://bench.example'), LAN)).toBe('https://bench.example');
  expect(phoneOrigin(at('http://127.0.0.1:4310'), [])).toBeUndefined();
});
