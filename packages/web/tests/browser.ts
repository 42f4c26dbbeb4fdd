import { TextDecoder, TextEncoder } from 'node:util';

// What components ask of a browser that jsdom does not have.
if (typeof window !== 'undefined') {
  class Asked {
    constructor(readonly url: string) {}
  }
  // A component that asks the server is told that it is not there, unless its test answers.
  const fetch = () => Promise.reject(new TypeError('no network'));
  Object.assign(globalThis, { TextEncoder, TextDecoder, fetch, Headers: Map, Request: Asked });
  const nothing = () => undefined;
  window.matchMedia ??= (media: string) =>
    ({
      media,
      matches: false,
      onchange: null,
      addEventListener: nothing,
      removeEventListener: nothing,
      addListener: nothing,
      removeListener: nothing,
      dispatchEvent: () => false,
    }) as MediaQueryList;
  window.ResizeObserver ??= class {
    observe = nothing;
    unobserve = nothing;
    disconnect = nothing;
  };
  Element.prototype.scrollIntoView ??= nothing;
  Element.prototype.scrollTo ??= nothing as Element['scrollTo'];
}
