import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const program = join(process.cwd(), 'packages/server/dist/main.mjs');

/** The built server with the examples, on a port and a folder of its own. */
export class OwnServer {
  readonly data = mkdtempSync(join(tmpdir(), 'roof-chart-own-'));
  #child: ChildProcess | undefined;

  constructor(
    readonly port: number,
    readonly env: Record<string, string> = {},
  ) {}

  get address(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async start(): Promise<void> {
    this.#child = spawn(process.execPath, [program, '--port', String(this.port), '--data', this.data, '--demo'], {
      env: { ...process.env, ...this.env },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    await new Promise<void>((resolve, reject) => {
      this.#child!.stdout!.on('data', (said: Buffer) => String(said).includes('Roof Chart is at') && resolve());
      this.#child!.once('exit', (code) => reject(new Error(`The server ended with code ${code}.`)));
    });
  }

  async stop(): Promise<void> {
    const child = this.#child;
    this.#child = undefined;
    if (!child) return;
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGTERM');
    await ended;
  }

  run(...args: string[]): Promise<number | null> {
    const child = spawn(process.execPath, [program, ...args, '--data', this.data], { stdio: 'ignore' });
    return new Promise((resolve) => child.once('exit', resolve));
  }

  remove(): void {
    rmSync(this.data, { recursive: true, force: true });
  }
}

/** @returns a port of the loopback interface that nothing listens on */
export const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
