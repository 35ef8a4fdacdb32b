import type { Page } from "@playwright/test";
import { finger } from "./finger";
import { changes, cup, expect, group, latest, row, test, toast, visit } from "./tincup";

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

async function middle(page: Page, title: string) {
  const box = (await row(page, title).boundingBox())!;
  return { x: box.x + 160, y: box.y + box.height / 2 };
}

test("a finger ticks by a pull to the right, and by the box; a short pull does nothing", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  const start = await latest(demo.url);
  const touch = await finger(page);
  const first = page.locator("main [data-todo]").first();
  await expect
    .poll(async () => (await first.boundingBox())!.y, "the first row stands high up")
    .toBeLessThanOrEqual(180);

  let at = await middle(page, "Ring the framer");
  await touch.pull(at, { x: 50 });
  await expect(row(page, "Ring the framer").locator(".pull")).toHaveText("Tick");
  await touch.up();
  await expect(row(page, "Ring the framer").locator(".pull")).toHaveCount(0);
  // From the very edge the system takes it.
  await touch.pull({ x: 10, y: at.y }, { x: 130 });
  await touch.up();
  await page.waitForTimeout(200);
  expect(await latest(demo.url)).toBe(start);

  await touch.pull(at, { x: 110 });
  await expect(row(page, "Ring the framer").locator(".pull.far")).toHaveText("Tick");
  await touch.up();
  await expect(row(page, "Ring the framer")).toHaveClass(/struck/);
  await expect(toast(page, "Done: “Ring the framer about mount board”")).toBeVisible();
  await expect(page.locator("[data-slip]"), "no slip opens by it").toHaveCount(0);
  await row(page, "Meter reading").getByRole("checkbox").tap();
  await expect(toast(page, "Done: “Meter reading, store room”")).toBeVisible();

  // What was ticked leaves, and all below it moves up; the box that was tapped has the focus.
  await expect(row(page, "Ring the framer")).toHaveCount(0);
  at = await middle(page, "Invoice for the lamp");
  await touch.pull(at, { x: -110 });
  await touch.up();
  const few = page.getByRole("menu");
  await expect(few.getByRole("menuitem")).toHaveText([/Plan…/, /Due…/, /List…/, /Put in the bin/]);
  await few.getByRole("menuitem", { name: "Put in the bin" }).tap();
  await expect(toast(page, "In the bin: “Invoice for the lamp")).toBeVisible();
  // The same behind the row's dots.
  await page.getByRole("button", { name: "More for Confirm opening" }).tap();
  for (const name of ["Plan…", "Due…", "List…", "Put in the bin"])
    await expect(page.getByRole("menuitem", { name })).toBeVisible();
});

test("what moves under a finger before it lets go: the press counts for what it began on", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  const start = await latest(demo.url);
  const box = (await row(page, "Ring the framer").getByRole("checkbox").boundingBox())!;
  const at = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const touch = await page.context().newCDPSession(page);
  await touch.send("Input.dispatchTouchEvent", { type: "touchStart", touchPoints: [at] });
  // As when the rail folds: all rows stand higher, but the finger still on this one.
  await page.locator("main").evaluate((sheet) => (sheet.style.marginTop = "-30px"));
  await touch.send("Input.dispatchTouchEvent", { type: "touchEnd", touchPoints: [] });
  await expect(toast(page, "Done: “Ring the framer")).toBeVisible();
  await expect(page.locator("[data-slip]")).toHaveCount(0);
  expect(await latest(demo.url)).toBe(start + 1);
});

test("a tap beside what is open puts it away, and reaches no row behind", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  const start = await latest(demo.url);
  const before = await page.locator("main [data-todo]").allInnerTexts();
  for (const choice of ["Plan…", "Due…", "List…", ""]) {
    await page.getByRole("button", { name: "More for Ring the framer" }).tap();
    if (choice) await page.getByRole("menuitem", { name: choice }).tap();
    const open = page.locator("[data-layer]:not([data-layer=toast])");
    await expect(open).toHaveCount(1);
    // On the box of a row that lies free of what is open.
    const top = (await open.boundingBox())!;
    for (const one of await page.locator("main [data-todo] [role=checkbox]").all()) {
      const at = (await one.boundingBox())!;
      const y = at.y + at.height / 2;
      const x = at.x + at.width / 2;
      if (y < 190 || y > 760) continue;
      if (y > top.y && y < top.y + top.height && x > top.x && x < top.x + top.width) continue;
      await page.touchscreen.tap(x, y);
      break;
    }
    await expect(open).toHaveCount(0);
  }
  await page.waitForTimeout(300);
  expect(await latest(demo.url)).toBe(start);
  expect(await page.locator("main [data-todo]").allInnerTexts()).toEqual(before);
});

test("a finger that rests lifts a row: among its like, onto a cup, onto a list at the edge", async ({
  page,
  tincup,
}) => {
  const loans = await tincup.post("/api/lists", { name: "Loans" });
  await tincup.post("/api/lists", { name: "Labels" });
  for (const title of ["Frame", "Glass", "Hooks"])
    await tincup.post("/api/todos", { title, list: loans.id });
  await visit(page, `${tincup.url}/list/${loans.id}`);
  const touch = await finger(page);
  const titles = () => page.locator("main [data-todo] .title").allInnerTexts();
  await expect.poll(titles).toEqual(["Frame", "Glass", "Hooks"]);

  // A finger that moves at once scrolls, and lifts nothing.
  let at = await middle(page, "Hooks");
  await touch.pull(at, { y: -60 });
  await touch.up();
  await expect(page.locator(".drag-slip")).toHaveCount(0);

  // Above the first of its like.
  at = await middle(page, "Hooks");
  await touch.down(at);
  await touch.rest();
  await expect(page.locator(".drag-slip")).toHaveText("Hooks");
  const frame = (await row(page, "Frame").boundingBox())!;
  await touch.to({ x: at.x, y: frame.y + 6 });
  await expect(row(page, "Frame")).toHaveClass(/land-above/);
  await touch.up();
  await expect.poll(titles).toEqual(["Hooks", "Frame", "Glass"]);

  // Onto a cup of the rail.
  at = await middle(page, "Frame");
  await touch.down(at);
  await touch.rest();
  const day = (await cup(page, "2026-11-25").boundingBox())!;
  await touch.to({ x: day.x + day.width / 2, y: day.y + 20 });
  await expect(cup(page, "2026-11-25")).toContainText("plan here");
  await touch.up();
  await expect(toast(page, "Planned for Wed 25 Nov 2026: “Frame”")).toBeVisible();

  // To the edge: the index opens, and takes it to a list.
  at = await middle(page, "Glass");
  await touch.down(at);
  await touch.rest();
  await touch.to({ x: 12, y: at.y });
  const labels = page.getByRole("navigation", { name: "Index" }).getByText("Labels");
  // It lies below the screen's end: the index scrolls to it under a finger that rests there.
  await touch.to({ x: 200, y: 800 });
  await expect(labels).toBeInViewport({ ratio: 1 });
  await touch.to({ x: 200, y: 500 });
  const entry = (await labels.boundingBox())!;
  await touch.to({ x: entry.x + 40, y: entry.y + entry.height / 2 });
  await touch.up();
  await expect(toast(page, "Moved to Labels: “Glass” (before: Loans)")).toBeVisible();
  await expect.poll(titles).toEqual(["Hooks", "Frame"]);
  await expect(page.locator(".drag-slip")).toHaveCount(0);
  expect((await changes(tincup.url)).slice(0, 3).map((c) => c.says)).toEqual([
    "Moved to Labels: “Glass” (before: Loans)",
    "Planned for Wed 25 Nov 2026: “Frame”",
    "Moved: “Hooks”",
  ]);
});

test("targets are 40 px high under a finger, and the rail folds to its rims", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  const rail = page.getByRole("navigation", { name: /^Rail/ });
  const before = (await rail.boundingBox())!.height;
  await page.getByRole("button", { name: "More for Today" }).tap();
  for (const item of await page.getByRole("menuitem").all())
    expect((await item.boundingBox())!.height).toBeGreaterThanOrEqual(40);
  await expect(page.getByRole("menuitem", { name: "Make room…" })).toBeVisible();
  await page.keyboard.press("Escape");
  await page.evaluate(() => document.querySelector("main.sheet")!.scrollTo(0, 300));
  await expect.poll(async () => (await rail.boundingBox())!.height).toBeLessThan(before / 3);
  await page.evaluate(() => document.querySelector("main.sheet")!.scrollTo(0, 0));
  await expect.poll(async () => (await rail.boundingBox())!.height).toBe(before);
  await expect(group(page, "handful")).toBeVisible();
  // All that buttons do on a desk stands in the one button.
  await page.goto(`${demo.url}/ready`);
  await page.getByRole("button", { name: "More for Ready" }).tap();
  await page.getByRole("menuitem", { name: "Show why" }).tap();
  await expect(page.locator("main .excerpt").first()).toBeVisible();
});

test("what is chosen is what was tapped: thirty rows at random, and no other", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/upcoming`);
  const start = await latest(demo.url);
  await page.getByRole("button", { name: "More for Upcoming" }).tap();
  await page.getByRole("menuitem", { name: "Choose", exact: true }).tap();
  const touch = await finger(page);
  const chosen = () =>
    page
      .locator("main [data-todo].chosen")
      .evaluateAll((rows) => rows.map((r) => (r as HTMLElement).dataset.todo).sort());
  const wanted = new Set<string>();
  let seed = 7;
  for (let tap = 0; tap < 30; tap++) {
    seed = (seed * 16807) % 2147483647;
    const one = page.locator("main [data-todo]").nth(seed % 12);
    await one.evaluate((el) => el.scrollIntoView({ block: "center" })); // and not under the bar
    const id = (await one.getAttribute("data-todo"))!;
    // The rail folds as the page is scrolled, and takes the rows along.
    let box = (await one.boundingBox())!;
    await expect
      .poll(async () => {
        const before = box.y;
        box = (await one.boundingBox())!;
        return box.y - before;
      })
      .toBe(0);
    await touch.down({ x: box.x + 160, y: box.y + box.height / 2 });
    await touch.up();
    if (!wanted.delete(id)) wanted.add(id);
    await expect.poll(chosen, `after tap ${tap}`).toEqual([...wanted].sort());
  }
  expect(await latest(demo.url)).toBe(start);
});

test("the line grows with its sentence to three lines, and stays one sentence", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/cup`);
  const line = page.getByRole("combobox", { name: "Put something in" });
  await line.tap();
  const high = async () => (await line.boundingBox())!.height;
  const one = await high();
  await page.keyboard.type(
    "Order mount board for the second bay by Friday 4pm, in Night Signals, high, takes 45 min",
  );
  await expect.poll(high).toBe(3 * one);
  const begins = () => line.evaluate((el) => el.scrollTop);
  expect(await begins(), "its beginning is in sight").toBe(0);
  // The words that were read are underlined where they stand.
  const under = (await page.locator(".field .mirror .yes").first().boundingBox())!;
  const box = (await line.boundingBox())!;
  expect(under.y).toBeGreaterThanOrEqual(box.y);
  expect(under.y + under.height).toBeLessThanOrEqual(box.y + box.height + 2);
  // Shift and Enter is no way to a second line, and a message stands above it.
  await page.keyboard.press("Shift+Enter");
  await expect(line).not.toHaveValue(/\n/);
  await page.keyboard.press("Enter");
  await expect(toast(page, "Put in: “Order mount board for the second bay”")).toBeVisible();
  await expect.poll(high).toBe(one);
  const message = (await page.locator(".messages").boundingBox())!;
  expect(message.y + message.height).toBeLessThanOrEqual((await line.boundingBox())!.y);
});

test("each head of Upcoming keeps its name beside its hours", async ({ page, demo }) => {
  await visit(page, `${demo.url}/upcoming`);
  const heads = page.locator("main .head");
  await expect(heads.first()).toBeVisible();
  const short = await heads.evaluateAll((all) =>
    all
      .filter((head) => {
        const name = head.querySelector("h2")!;
        const room = head.getBoundingClientRect();
        const last = [...head.children].at(-1)!.getBoundingClientRect();
        const cut = name.scrollWidth > name.clientWidth && name.clientWidth < 110;
        return cut || last.right > room.right + 1;
      })
      .map((head) => head.textContent?.trim()),
  );
  expect(short).toEqual([]);
  // A day's sheet keeps its name too; its events stand in its button.
  await page.goto(`${demo.url}/rail/2026-11-25`);
  await expect(page.locator("main h1")).toHaveText("Wednesday 25 November");
  const fits = () => page.locator("main h1").evaluate((el) => el.scrollWidth <= el.clientWidth);
  await expect.poll(fits).toBe(true);
  await page.getByRole("button", { name: "More for Wednesday 25 November" }).tap();
  await page.getByRole("menuitem", { name: "Events…" }).tap();
  await expect(page.getByRole("dialog", { name: "Event: Fire drill" })).toBeVisible();
});
