/** Resolves once the next frame has been painted; soon, where no frames are drawn (a tab in the background); at once
 *  when the page goes. The picture of an edit goes before its review, its copy and its way to the server. */
export function afterPaint(): Promise<void> {
  return new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel();
    const done = () => {
      removeEventListener('pagehide', done);
      port1.close();
      resolve();
    };
    port1.onmessage = done;
    addEventListener('pagehide', done);
    requestAnimationFrame(() => port2.postMessage(null));
    setTimeout(done, 60);
  });
}
