import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort, runCommand, startServer } from './faults/realServer.mjs';

/** The built server with the examples, on a port and a folder of its own. */
export class OwnServer {
  readonly data = mkdtempSync(join(tmpdir(), 'roof-chart-own-'));
  #port = 0;
  #running: ReturnType<typeof startServer> | undefined;

  /** @param examples whether it begins with the examples, or empty */
  constructor(
    readonly env: Record<string, string> = {},
    readonly examples = true,
  ) {}

  get address(): string {
    return `http://127.0.0.1:${this.#port}`;
  }

  /** @throws Error with what the server said, where it does not start */
  async start(): Promise<void> {
    this.#port ||= await freePort();
    this.#running = startServer({ port: this.#port, data: this.data, extra: this.examples ? ['--demo'] : [], env: this.env });
    await this.#running.ready;
  }

  async stop(): Promise<void> {
    this.#running?.child.kill('SIGTERM');
    await this.#running?.ended;
    this.#running = undefined;
  }

  /** One command of the server's program on the folder. @returns its exit code */
  async run(...args: string[]): Promise<number | null> {
    return (await runCommand([...args, '--data', this.data])).code;
  }

  remove(): void {
    rmSync(this.data, { recursive: true, force: true });
  }
}
