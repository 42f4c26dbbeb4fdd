import request from 'supertest';
import { serve, type Served } from '../../tests/serve';
import { GuessLimit } from './guessLimit';
import { checkSecrets } from './signIn';

const passphrase = 'correct horse battery';
const token = 'a-token-for-programs-0123456789';
let served: Served;
beforeEach(async () => void (served = await serve({ secrets: { passphrase, token } })));
afterEach(() => served.close());
const api = () => request(served.app);
const signIn = (words: string) => api().post('/api/session').send({ passphrase: words });

test('an open server names its addresses for other devices, those that a phone finds first', async () => {
  const open = await serve({ secrets: { passphrase }, hostNames: ['workshop', '[fe80::1]', '192.168.1.20', '169.254.3.4'] });
  const { addresses } = (await request(open.app).get('/api/session').expect(200)).body as { addresses: readonly string[] };
  expect(addresses.map((address) => address.replace(/:\d+$/, ''))).toEqual(['http://192.168.1.20', 'http://workshop']);
  await open.close();
});

test('nothing is answered before signing in, on loopback neither; health and the question are', async () => {
  for (const path of ['/api/plans', '/api/catalogue', '/api/archive', '/api/openapi.json'])
    expect((await api().get(path).expect(401)).body).toMatchObject({ error: { code: 'signed-out' } });
  await api().get('/api/health').expect(200);
  await api().get('/api/session').expect(200, { required: true, addresses: [] });
});

test('a cookie that no script reads and no other page sends; signing out ends it', async () => {
  const [cookie] = (await signIn(passphrase).expect(204)).get('Set-Cookie')!;
  expect(cookie).toMatch(/^roof-chart-session=[\w-]{43}; Max-Age=2592000; Path=\/; Expires=.*; HttpOnly; SameSite=Strict$/);
  const own = cookie!.split(';')[0]!;
  await api().get('/api/plans').set('Cookie', `other=1; ${own}`).expect(200);
  await api().get('/api/plans').set('Cookie', own.replace(/.{4}$/, 'AAAA')).expect(401);
  await api().delete('/api/session').set('Cookie', own).expect(204);
  await api().get('/api/plans').set('Cookie', own).expect(401);
});

test('behind a proxy with TLS the cookie is Secure', async () => {
  const answer = await signIn(passphrase).set('X-Forwarded-Proto', 'https').expect(204);
  expect(answer.get('Set-Cookie')![0]).toMatch(/; Secure/);
});

test('programs send the token; a wrong one is a guess like any other', async () => {
  const ask = (words: string) => api().get('/api/plans').set('Authorization', `Bearer ${words}`);
  await ask(token).expect(200);
  for (let n = 0; n < 3; n += 1) await ask(`${token}x`).expect(401);
  await ask(token).expect(429);
});

test('guesses are slowed down before the passphrase is looked at', async () => {
  for (let n = 0; n < 3; n += 1) await signIn('correct horse').expect(401);
  const waiting = await signIn(passphrase).expect(429);
  expect([waiting.get('Retry-After'), (waiting.body as { error: { code: string } }).error.code]).toEqual(['1', 'too-many-guesses']);
});

test('long passphrases work, blanks alone are none, and half a setting is told', async () => {
  const long = 'ö'.repeat(900);
  const other = await serve({ secrets: { passphrase: long } });
  await request(other.app).post('/api/session').send({ passphrase: long }).expect(204);
  await other.close();
  expect(() => checkSecrets({ passphrase: ' '.repeat(20) })).toThrow('at least 12 characters');
  expect(() => checkSecrets({ passphrase: 'x'.repeat(1001) })).toThrow('at most 1000');
  expect(() => checkSecrets({ token })).toThrow('set both');
  expect(() => checkSecrets({ passphrase, token: 'short' })).toThrow('at least 24 characters');
  expect(() => checkSecrets({ passphrase, token })).not.toThrow();
});

test('without a passphrase nobody is asked', async () => {
  const open = await serve();
  await request(open.app).get('/api/session').expect(200, { required: false, addresses: [] });
  await request(open.app).get('/api/plans').expect(200);
  await open.close();
});

test('the delay doubles up to a minute, is each address’s own, and ends with the right passphrase', () => {
  let time = 1000;
  const limit = new GuessLimit(() => time);
  const waits = Array.from({ length: 14 }, () => {
    limit.wrong('a');
    return limit.waitMs('a');
  });
  expect(waits).toEqual([0, 0, 500, 1000, 2000, 4000, 8000, 16_000, 32_000, 60_000, 60_000, 60_000, 60_000, 60_000]);
  expect(limit.waitMs('b')).toBe(0);
  time += 60_000;
  expect(limit.waitMs('a')).toBe(0);
  limit.right('a');
  limit.wrong('a');
  expect(limit.waitMs('a')).toBe(0);
  for (let n = 0; n < 40; n += 1) limit.wrong(`address-${n}`);
  expect(limit.waitMs('never seen')).toBeGreaterThan(0);
});
