import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { test as base, type BrowserContext, expect, type Page } from "@playwright/test";

const binary = new URL("../../bin/tincup", import.meta.url).pathname;

async function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const at = probe.address();
      probe.close(() => resolve(typeof at === "object" && at ? at.port : 0));
    });
  });
}

/** The built binary on a data file of its own, at one address through restarts. */
export class Tincup {
  private process?: ChildProcess;
  private readonly folder = mkdtempSync(join(tmpdir(), "tincup-e2e-"));
  private constructor(
    private readonly port: number,
    private readonly args: string[],
    private readonly time: string[] = ["--zone", "Europe/Lisbon"],
  ) {}

  /** Starts an empty Book, or the demo. The clock is a file that `setClock` moves. */
  static async start(what: "serve" | "demo", now: string, ...more: string[]): Promise<Tincup> {
    const t = new Tincup(await freePort(), [what, ...more]);
    t.setClock(now);
    await t.launch();
    return t;
  }

  /** Starts an empty Book that is told no zone, on a clock that stands. */
  static async bare(now: string): Promise<Tincup> {
    const t = new Tincup(await freePort(), ["serve"], []);
    t.setClock(now);
    await t.launch();
    return t;
  }

  get url() {
    return `http://127.0.0.1:${this.port}`;
  }

  setClock(wall: string) {
    const file = join(this.folder, "clock");
    writeFileSync(`${file}.next`, wall);
    renameSync(`${file}.next`, file);
  }

  async launch(...more: string[]) {
    const started = spawn(
      binary,
      [
        ...this.args,
        ...more,
        "--quiet",
        "--db",
        join(this.folder, "book.db"),
        "--addr",
        `127.0.0.1:${this.port}`,
        ...this.time,
        "--clock-file",
        join(this.folder, "clock"),
      ],
      { stdio: ["ignore", "pipe", "inherit"] },
    );
    this.process = started;
    await new Promise<void>((resolve, reject) => {
      let said = "";
      started.stdout.on("data", (chunk: Buffer) => {
        said += chunk.toString();
        if (said.includes("Tin Cup is at")) resolve();
      });
      started.on("exit", (status) => reject(new Error(`tincup ended with ${status}`)));
    });
  }

  async stop() {
    const running = this.process;
    this.process = undefined;
    if (!running || running.exitCode !== null) return;
    const ended = new Promise((done) => running.once("exit", done));
    running.kill("SIGINT");
    await ended;
  }

  async end() {
    await this.stop();
    rmSync(this.folder, { recursive: true, force: true });
  }

  /** What a page would ask the server. */
  async post(path: string, body: unknown): Promise<{ id: string }> {
    return this.send("POST", path, body, { "Content-Type": "application/json" });
  }

  /** A change of one to-do, as it is by now. */
  async patch(path: string, body: unknown): Promise<{ id: string }> {
    const now = await fetch(`${this.url}${path}`); // a list has no address of its own
    return this.send("PATCH", path, body, {
      "Content-Type": "application/merge-patch+json",
      "If-Match": now.headers.get("ETag") ?? "*",
    });
  }

  /** Deletes, as another window would. */
  async remove(path: string): Promise<void> {
    await fetch(`${this.url}${path}`, { method: "DELETE", headers: { "If-Match": "*" } });
  }

  private async send(method: string, path: string, body: unknown, headers: HeadersInit) {
    const res = await fetch(`${this.url}${path}`, { method, headers, body: JSON.stringify(body) });
    if (!res.ok) throw new Error(await res.text());
    return (await res.json()) as { id: string };
  }
}

/** A Tuesday morning, as in the demo. */
export const morning = "2026-11-24T09:10:00";

interface Fixtures {
  /** An empty Book. */
  tincup: Tincup;
  /** The demo data. */
  demo: Tincup;
  /** Complaints of the page; a test fails when there are any it did not expect. */
  complaints: string[];
}

export const test = base.extend<Fixtures>({
  tincup: async ({ context }, use) => {
    const t = await Tincup.start("serve", morning);
    await use(t);
    await leave(context, t);
  },
  demo: async ({ context }, use) => {
    const t = await Tincup.start("demo", morning);
    await use(t);
    await leave(context, t);
  },
  complaints: [
    async ({ context }, use) => {
      const heard: string[] = [];
      watch(context, heard);
      await use(heard);
      expect(heard).toEqual([]);
    },
    { auto: true },
  ],
});

/** Closes the windows before the server, so that none is left asking. */
async function leave(context: BrowserContext, t: Tincup) {
  for (const page of context.pages()) await page.close();
  await t.end();
}

function watch(context: BrowserContext, heard: string[]) {
  context.on("weberror", (e) => heard.push(e.error().message));
  context.on("console", (m) => {
    if (m.type() === "error" || m.type() === "warning") heard.push(m.text());
  });
}

/** The first page of the history, the newest change first. */
export async function changes(url: string): Promise<{ revision: number; says: string }[]> {
  const res = await fetch(`${url}/api/history`);
  return ((await res.json()) as { changes: { revision: number; says: string }[] }).changes;
}

/** The revision of the latest change: the same as before where nothing was done. */
export const latest = async (url: string) => (await changes(url))[0]?.revision ?? 0;

/** What the history says was done, the newest first. */
export const history = async (url: string) => (await changes(url)).map((c) => c.says);

export const row = (page: Page, title: string) =>
  page.locator("main [data-todo]").filter({ hasText: title });
export const group = (page: Page, kind: string) => page.locator(`[data-group="${kind}"]`);
export const slip = (page: Page) => page.getByRole("complementary", { name: "Slip" });
export const cup = (page: Page, horizon: string) => page.locator(`[data-cup="${horizon}"]`);
export const toast = (page: Page, text: string | RegExp) =>
  page.locator(".toast").filter({ hasText: text });
export const index = (page: Page) => page.getByRole("navigation", { name: "Index" });

/** Opens a page and waits until its stream of changes is up. */
export async function visit(page: Page, url: string) {
  const stream = page.waitForResponse((r) => r.url().includes("/api/events"));
  await page.goto(url);
  await stream;
  await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
  await expect(page.locator("main .loading")).toHaveCount(0); // its rows are there
}

export { expect };
