import { spawn, type ChildProcess } from "node:child_process";
import { mkdirSync, rmSync } from "node:fs";
import { resolve } from "node:path";

const READY_MILLISECONDS = 60_000;

/** A server of a test's own, with a fresh database; it can be stopped, killed and started again. */
export class OwnServer {
  readonly base: string;
  readonly folder: string;
  readonly url: string;
  private child: ChildProcess | null = null;

  constructor(
    readonly name: string,
    readonly port: number,
    readonly environment: Record<string, string> = {},
  ) {
    this.base = `http://127.0.0.1:${port}`;
    this.folder = resolve(".derrick/e2e", name);
    this.url = `file:${this.folder}/test.db`;
    rmSync(this.folder, { recursive: true, force: true });
    mkdirSync(this.folder, { recursive: true });
  }

  async start(): Promise<void> {
    const child = spawn(process.execPath, ["scripts/server.mjs", "--port", String(this.port)], {
      stdio: "ignore",
      env: {
        ...process.env,
        NODE_ENV: "production",
        NEXT_TELEMETRY_DISABLED: "1",
        DERRICK_DB_URL: this.url,
        DERRICK_ORIGIN: this.base,
        ...this.environment,
      },
    });
    this.child = child;
    const until = Date.now() + READY_MILLISECONDS;
    while (Date.now() < until && child.exitCode === null) {
      if ((await fetch(`${this.base}/api/health`).catch(() => null))?.ok) return;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error(`the server ${this.name} did not start`);
  }

  /** Sends a signal without waiting for what follows. */
  signal(name: NodeJS.Signals): void {
    this.child?.kill(name);
  }

  /** Ends it and waits until it has ended. */
  async end(name: NodeJS.Signals = "SIGTERM"): Promise<void> {
    const { child } = this;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const over = new Promise((r) => child.once("exit", r));
    child.kill(name);
    await over;
  }
}
