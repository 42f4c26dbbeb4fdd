import { interview, ProbeSession } from '@roof-chart/core/bench/session';
import { serialPort } from './serialPort';

const later = (milliseconds: number, act: () => void) => {
  const timer = setTimeout(act, milliseconds > 0 ? 50 : 0);
  return () => clearTimeout(timer);
};

/** A port whose other side answers in pieces of a few bytes. */
function pieces(answer: (line: string) => string | null) {
  let push: (text: string) => void = () => undefined;
  let end: () => void = () => undefined;
  const readable = new ReadableStream<Uint8Array>({
    start(controller) {
      push = (text) => {
        for (let at = 0; at < text.length; at += 3) controller.enqueue(new TextEncoder().encode(text.slice(at, at + 3)));
      };
      end = () => controller.error(new Error('unplugged'));
    },
  });
  const writable = new WritableStream<Uint8Array>({
    write(chunk) {
      const said = answer(new TextDecoder().decode(chunk).trim());
      if (said === null) end();
      else push(said);
    },
  });
  return serialPort({ open: () => Promise.resolve(), close: () => Promise.resolve(), readable, writable });
}

test('answers that come in pieces are put together; carriage returns are overheard', async () => {
  const port = pieces((line) => `# boot\r\n${line.split(' ')[0]} ok ${line.includes('hello') ? 'probe 1 x' : '1'}\r\n`);
  const result = await interview(new ProbeSession(port, later), [{ ask: 'read', pin: 'GP4', pull: 'up' }]);
  expect(result).toEqual({ answers: ['1'], fault: undefined });
});

test('a port that is unplugged in the middle says so, and keeps what was answered', async () => {
  let asked = 0;
  const port = pieces((line) => ((asked += 1) > 2 ? null : `${line.split(' ')[0]} ok ${line.includes('hello') ? 'probe 1 x' : '0'}\n`));
  const question = { ask: 'read', pin: 'GP4', pull: 'up' } as const;
  expect(await interview(new ProbeSession(port, later), [question, question])).toEqual({ answers: ['0'], fault: 'gone' });
});
