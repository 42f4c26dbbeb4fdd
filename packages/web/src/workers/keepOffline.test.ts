/** @jest-environment jsdom */
import { MessageChannel } from 'node:worker_threads';
import { keepOffline } from './keepOffline';
import type { PageMessage } from './offlineMessages';

Object.assign(globalThis, { MessageChannel });

/** A version of the service worker: what it was told, and whether its files are those of the page. */
class Version extends EventTarget {
  state = 'installing';
  readonly told: PageMessage['kind'][] = [];
  constructor(readonly script: string) {
    super();
  }
  postMessage(message: PageMessage, [port]: readonly MessagePort[] = []): void {
    this.told.push(message.kind);
    if (message.kind === 'compare') port!.postMessage({ isSame: message.script === this.script });
  }
}

class Registration extends EventTarget {
  active: Version | null = null;
  waiting: Version | null = null;
  installing: Version | null = null;
  readonly update = jest.fn(() => Promise.resolve());
  install(version: Version): void {
    this.installing = version;
    this.dispatchEvent(new Event('updatefound'));
    version.state = 'installed';
    version.dispatchEvent(new Event('statechange'));
  }
}

class Container extends EventTarget {
  constructor(readonly registration: Registration | Error) {
    super();
  }
  register(): Promise<Registration> {
    return this.registration instanceof Error ? Promise.reject(this.registration) : Promise.resolve(this.registration);
  }
}

const soon = () => new Promise((resolve) => setTimeout(resolve, 30));

async function opened(registration: Registration | Error) {
  document.head.innerHTML = '<script type="module" src="/assets/index-2.js"></script>';
  const container = new Container(registration);
  const announced: (() => void)[] = [];
  const reload = jest.fn();
  const isKept = await keepOffline((change) => announced.push(change), container as unknown as ServiceWorkerContainer, reload);
  await soon();
  return { container, announced, reload, isKept };
}

beforeAll(() => jest.spyOn(globalThis, 'setInterval').mockReturnValue(0 as unknown as ReturnType<typeof setInterval>));
afterAll(() => jest.restoreAllMocks());

test('the first version has nothing to take over from', async () => {
  const registration = new Registration();
  const { announced, isKept } = await opened(registration);
  const first = new Version('/assets/index-2.js');
  registration.install(first);
  await soon();
  expect({ isKept, told: first.told, announced: announced.length }).toEqual({ isKept: true, told: [], announced: 0 });
});

test('a newer version is announced, and takes over when somebody wants it: the page is then loaded anew, once', async () => {
  const registration = new Registration();
  registration.active = new Version('/assets/index-2.js');
  const { container, announced, reload } = await opened(registration);
  const newer = new Version('/assets/index-3.js');
  registration.install(newer);
  await soon();
  container.dispatchEvent(new Event('controllerchange'));
  expect({ told: newer.told, announced: announced.length, reloads: reload.mock.calls.length }).toEqual({
    told: ['compare'],
    announced: 1,
    reloads: 0,
  });
  announced[0]!();
  expect(newer.told).toEqual(['compare', 'take-over']);
  container.dispatchEvent(new Event('controllerchange'));
  container.dispatchEvent(new Event('controllerchange'));
  expect(reload).toHaveBeenCalledTimes(1);
});

test('a version that waits since before, of the very page that is open, is not announced', async () => {
  const registration = new Registration();
  registration.active = new Version('/assets/index-1.js');
  registration.waiting = new Version('/assets/index-2.js');
  const { announced } = await opened(registration);
  expect({ announced: announced.length, told: registration.waiting.told }).toEqual({ announced: 0, told: ['compare'] });
});

test('where the browser keeps nothing, that is said: no TLS, or refused', async () => {
  expect(await keepOffline(() => undefined, undefined)).toBe(false);
  expect((await opened(new Error('refused'))).isKept).toBe(false);
});
