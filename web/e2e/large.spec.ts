import type { Page } from "@playwright/test";
import { expect, row, test, visit } from "./tincup";

/** The same reckoning some times over, in milliseconds each: how evenly the machine runs. */
const reckonings = (page: Page) =>
  page.evaluate(async () => {
    const took: number[] = [];
    for (let n = 0; n < 40; n++) {
      const begun = performance.now();
      let sum = 0;
      for (let i = 1; i < 6_000_000; i++) sum += i % 7;
      took.push(performance.now() - begun + (sum > 0 ? 0 : 1));
      await new Promise((done) => requestAnimationFrame(done));
    }
    return took.slice(10); // by then it is compiled
  });

test("a list of 10,000 rows scrolls without long tasks and answers a tick at once", async ({
  page,
  tincup,
}) => {
  test.setTimeout(300_000);
  const list = await tincup.post("/api/lists", { name: "Everything" });
  for (let part = 0; part < 20; part++) {
    const lines = Array.from({ length: 500 }, (_, i) => `- Crate ${part * 500 + i}`);
    await tincup.post("/api/lines/todos", { text: lines.join("\n"), list: list.id });
  }
  await visit(page, `${tincup.url}/list/${list.id}`);
  await expect(row(page, "Crate 0").first()).toBeVisible();
  await expect(page.getByText("10000 to do")).toBeVisible();
  expect(await page.locator("main [data-todo]").count()).toBeLessThan(80);
  await page.waitForTimeout(2500); // what loads after the first view has come

  // Long tasks are those over 50 ms (W3C, Long Tasks API).
  await page.evaluate(() => {
    const w = window as unknown as { long: number[] };
    w.long = [];
    new PerformanceObserver((seen) => {
      for (const task of seen.getEntries()) w.long.push(Math.round(task.duration));
    }).observe({ type: "longtask" });
  });
  const sheet = page.locator("main.sheet");
  const scroll = async () => {
    await page.evaluate(() => ((window as unknown as { long: number[] }).long = []));
    await sheet.evaluate((main) => (main.scrollTop = 0));
    const worst = await sheet.evaluate(async (main) => {
      const frame = () => new Promise<number>((done) => requestAnimationFrame(done));
      let worst = 0;
      let before = await frame();
      for (let n = 0; n < 240; n++) {
        main.scrollTop += 160;
        const now = await frame();
        worst = Math.max(worst, now - before);
        before = now;
      }
      return Math.round(worst);
    });
    // To the end in one go, and back to the middle.
    await sheet.evaluate((main) => (main.scrollTop = main.scrollHeight));
    await expect(row(page, "Crate 9999")).toBeVisible();
    await sheet.evaluate((main) => (main.scrollTop = 200_000));
    await expect.poll(() => page.locator("main [data-todo]").count()).toBeGreaterThan(10);
    const long = await page.evaluate(() => (window as unknown as { long: number[] }).long);
    console.log(
      `long tasks while scrolling: ${JSON.stringify(long)} ms; longest frame: ${worst} ms`,
    );
    return Math.max(0, ...long);
  };
  // What else the machine does shows as long tasks too: the quietest of a few counts,
  // less what one in twenty reckonings beside it was held up by.
  let longest = Infinity;
  for (let n = 0; n < 10 && longest > 50; n++) {
    if (n > 0) await page.waitForTimeout(1500);
    const before = await reckonings(page);
    const task = await scroll();
    const beside = [...before, ...(await reckonings(page))].sort((a, b) => a - b);
    const heldUp = beside[Math.floor(beside.length * 0.95)]! - beside[0]!;
    console.log(`one in twenty reckonings beside it was held up by ${Math.round(heldUp)} ms`);
    longest = Math.min(longest, task - heldUp);
  }
  expect(longest).toBeLessThanOrEqual(50);

  const ticks: number[] = [];
  for (let n = 3; n < 8; n++) {
    const one = page.locator("main [data-todo]").nth(n);
    const took = await one.evaluate(async (element) => {
      const begun = performance.now();
      element.querySelector<HTMLElement>("[role=checkbox]")!.click();
      while (!element.classList.contains("struck"))
        await new Promise((done) => requestAnimationFrame(done));
      return performance.now() - begun;
    });
    ticks.push(Math.round(took));
    await page.waitForTimeout(300);
  }
  console.log(`tick to struck row: ${ticks.join(", ")} ms`);
  expect(ticks.toSorted((a, b) => a - b)[2]).toBeLessThanOrEqual(100);
});

test("from a ring to its card in twenty windows", async ({ context, tincup }) => {
  test.setTimeout(180_000);
  const rings = 10;
  for (let n = 1; n <= rings; n++)
    await tincup.post("/api/todos", {
      title: `ring ${n}.`,
      reminders: [`2026-11-24T09:${10 + n}`],
    });
  await context.addInitScript(() => {
    const w = window as unknown as { came: Record<string, number> };
    w.came = {};
    new MutationObserver(() => {
      for (const card of document.querySelectorAll("article .title"))
        w.came[card.textContent ?? ""] ??= Date.now();
    }).observe(document, { childList: true, subtree: true });
  });
  for (let n = 0; n < 20; n++) {
    const window = await context.newPage();
    await window.goto(`${tincup.url}/today`);
    await expect(window.getByRole("heading", { level: 1 })).toBeVisible();
  }
  const took: number[] = [];
  for (let n = 1; n <= rings; n++) {
    const title = `ring ${n}.`;
    const begun = Date.now();
    tincup.setClock(`2026-11-24T09:${10 + n}:00`);
    for (const window of context.pages()) {
      await window.waitForFunction(
        (title) => title in (window as unknown as { came: Record<string, number> }).came,
        title,
      );
      const came = await window.evaluate(
        (title) => (window as unknown as { came: Record<string, number> }).came[title]!,
        title,
      );
      took.push(came - begun);
    }
    await tincup.post("/api/bell/seen", { rings: await openRings(tincup.url) });
  }
  took.sort((a, b) => a - b);
  const share = (of: number) => took[Math.floor((took.length - 1) * of)]!;
  console.log(
    `ring to card in 20 windows: p50 ${share(0.5)} ms, p99 ${share(0.99)} ms, the longest ${share(1)} ms`,
  );
  expect(share(0.5)).toBeLessThanOrEqual(1000);
});

const openRings = async (url: string) =>
  ((await (await fetch(`${url}/api/bell`)).json()) as { open: { id: string }[] }).open.map(
    (r) => r.id,
  );
