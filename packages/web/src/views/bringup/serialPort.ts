import { orThrow } from '@roof-chart/core/collections/orThrow';
import type { BenchPort } from '@roof-chart/core/bench/session';

/** The part of Web Serial that is used. */
interface SerialPortLike {
  open(options: { readonly baudRate: number }): Promise<void>;
  close(): Promise<void>;
  readonly readable: ReadableStream<Uint8Array> | null;
  readonly writable: WritableStream<Uint8Array> | null;
}
interface SerialLike {
  requestPort(): Promise<SerialPortLike>;
}

const BAUD = 115_200;

/** Whether this browser can talk to a board over its USB port. */
export const canSerial = (): boolean => 'serial' in navigator;

/** Lets the user choose a port and opens it as a way to a probe.
 *  @returns undefined when the user chose none
 *  @throws Error with a sentence when the port cannot be opened */
export async function openSerial(): Promise<BenchPort | undefined> {
  const { serial } = navigator as unknown as { readonly serial: SerialLike };
  let port: SerialPortLike;
  try {
    port = await serial.requestPort();
  } catch {
    return undefined;
  }
  try {
    await port.open({ baudRate: BAUD });
  } catch {
    throw new Error('The serial port could not be opened: another program may be using it. Close that program and try again.');
  }
  return serialPort(port);
}

/** An open port as a way to a probe: bytes become lines. */
export function serialPort(port: SerialPortLike): BenchPort {
  const writer = orThrow(port.writable, 'way to write').getWriter();
  const reader = orThrow(port.readable, 'way to read').getReader();
  return {
    listen({ line, gone }) {
      void (async () => {
        const decoder = new TextDecoder();
        let text = '';
        try {
          for (;;) {
            const { value, done } = await reader.read();
            if (done) break;
            text += decoder.decode(value, { stream: true });
            const lines = text.split(/\r?\n/);
            // Data without a line end is not an answer.
            text = (lines.pop() ?? '').slice(-500);
            for (const one of lines) line(one);
          }
        } catch {
          // Unplugged: the same as an end.
        }
        gone();
      })();
    },
    send: (line) => writer.write(new TextEncoder().encode(`${line}\n`)),
    async close() {
      await reader.cancel().catch(() => undefined);
      writer.releaseLock();
      await port.close().catch(() => undefined);
    },
  };
}
