import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { freePort } from '../../bench/served';

export const ownFolder = (): string => mkdtempSync(path.join(tmpdir(), 'gasline-own-'));

/** A server of a test's own, which may be killed and started again on the same data. */
export class OwnServer {
  private child: ChildProcess | undefined;
  /** What it said, on both streams. */
  said = '';

  private constructor(
    readonly port: number,
    readonly data: string,
    private readonly lanAddress: string | undefined,
  ) {}

  static async of(options: { readonly lan?: string; readonly data?: string } = {}): Promise<OwnServer> {
    return new OwnServer(await freePort(), options.data ?? ownFolder(), options.lan);
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Resolves when it answers; undefined, or the code that it ended with instead. */
  start(): Promise<number | undefined> {
    this.child = spawn(
      process.execPath,
      ['.next/serve.mjs', '--port', String(this.port), ...(this.lanAddress ? ['--lan'] : [])],
      {
        env: {
          ...process.env,
          NODE_ENV: 'production',
          GASLINE_DATA: this.data,
          ...(this.lanAddress ? { GASLINE_LAN_TEST: this.lanAddress } : {}),
        },
        stdio: ['ignore', 'pipe', 'pipe'],
      },
    );
    return new Promise((done) => {
      const hear = (text: Buffer): void => {
        this.said += text.toString();
        if (/runs at[\s\S]*\n/.test(this.said)) done(undefined);
      };
      this.child!.stdout!.on('data', hear);
      this.child!.stderr!.on('data', hear);
      this.child!.on('exit', (code) => done(code ?? -1));
    });
  }

  /** Ends it as the loss of power would. */
  async kill(): Promise<void> {
    const { child } = this;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const gone = new Promise((done) => child.once('exit', done));
    child.kill('SIGKILL');
    await gone;
    this.said = '';
  }
}
