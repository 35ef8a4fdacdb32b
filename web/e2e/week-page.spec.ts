import type { Locator, Page } from "@playwright/test";
import { expect, history, latest, slip, test, toast, visit } from "./tincup";

const cup = (page: Page, day: string) => page.locator(`[data-day="${day}"]`);
const paper = (within: Page | Locator, title: string) =>
  within.locator("[data-todo]").filter({ hasText: title });
const says = (page: Page) => page.locator(".page .says").first();

test("a week is planned by mouse: placed, too full, helped, levelled and undone", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  await page.getByRole("navigation", { name: "Index" }).getByText("Week", { exact: true }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Week 48");
  await expect(says(page)).toContainText("Wednesday holds 45 min more than it can.");
  const friday = cup(page, "2026-11-27");
  const loose = page.locator(".loose");

  // From what is to place into a cup.
  await paper(loose, "Decide the colour of bay two").dragTo(friday.locator(".name"));
  await expect(
    toast(page, "Planned for Fri 27 Nov 2026: “Decide the colour of bay two”"),
  ).toBeVisible();
  await expect(paper(friday, "Decide the colour")).toBeVisible();
  await expect(paper(loose, "Decide the colour")).toHaveCount(0);
  // What is ticked there stays struck for a moment; its undo brings it back.
  const ask = paper(loose, "Ask the volunteers about the late evening");
  await ask.focus();
  await page.keyboard.press(" ");
  await expect(ask).toHaveClass(/struck/);
  await page.keyboard.press(" ");
  await expect(ask).not.toHaveClass(/struck/);
  // Esc puts proposals away, and nothing else.
  await page.getByRole("button", { name: "Level the week" }).click();
  await expect(page.locator("[data-proposal]").first()).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.locator(".says.proposal")).toHaveCount(0);
  // From cup to cup: Wednesday gets more, and the verdict follows.
  await paper(friday, "Order mount board").dragTo(cup(page, "2026-11-25").locator(".name"));
  await expect(says(page)).toContainText("Wednesday holds 1 h 05 more than it can.");
  await expect(cup(page, "2026-11-25")).toHaveAccessibleName(
    /8 h 05 of 7 h, 1 h 05 over, own hours 45 min of 3 h, 11 slips/,
  );
  await page.keyboard.press("ControlOrMeta+z");
  await expect(says(page)).toContainText("Wednesday holds 45 min more than it can.");
  // How long it takes from letting go to the new verdict, in the browser's own time.
  const took: number[] = [];
  for (const day of ["2026-11-25", "2026-11-26", "2026-11-25", "2026-11-27"]) {
    const before = await says(page).innerText();
    const waiting = page.evaluate(
      (before) =>
        new Promise<number>((done) => {
          let letGo = 0;
          addEventListener("drop", () => (letGo ||= performance.now()), { capture: true });
          const look = () => {
            const now = document.querySelector<HTMLElement>(".page .says")?.innerText;
            if (letGo && now !== before) done(performance.now() - letGo);
            else requestAnimationFrame(look);
          };
          look();
        }),
      before,
    );
    await paper(page, "Order mount board").dragTo(cup(page, day).locator(".name"));
    took.push(await waiting);
  }
  console.log(`drop to verdict: ${took.map((t) => Math.round(t)).join(", ")} ms`);
  expect(took).toHaveLength(4);
  for (let i = 0; i < 4; i++) await page.keyboard.press("ControlOrMeta+z");
  const undone = async () =>
    (await history(demo.url)).slice(0, 4).filter((says) => says.startsWith("Undone."));
  await expect.poll(undone).toHaveLength(4);
  await expect(says(page)).toContainText("Wednesday holds 45 min more than it can.");
  // What helps is one press away.
  await page.getByRole("button", { name: "Move it" }).click();
  await expect(says(page)).toContainText("Every day holds what lies on it");
  await expect(cup(page, "2026-11-26")).toContainText("Proofread the bay two panel");

  // Proposals change nothing until they are taken.
  const before = await latest(demo.url);
  await page.getByRole("button", { name: "Level the week" }).click();
  const verdict = page.locator(".says.proposal");
  await expect(verdict).toContainText("With these the fullest day is");
  const proposed = page.locator("[data-proposal]");
  expect(await proposed.count()).toBeGreaterThan(1);
  expect(await latest(demo.url)).toBe(before);
  // One is taken, and the week is levelled anew.
  const one = (await proposed.first().getAttribute("data-proposal"))!;
  await proposed.first().click();
  await expect(page.locator(`[data-proposal="${one}"]`)).toHaveCount(0);
  await expect(page.locator(`[data-day] [data-todo="${one}"]`)).toBeVisible();
  await expect.poll(() => latest(demo.url)).toBe(before + 1);
  await page.getByRole("button", { name: /^Take / }).click();
  await expect(proposed).toHaveCount(0);
  await expect(paper(loose, "Tidy the spare room shelf")).toHaveCount(0);
  const done = await history(demo.url);
  expect(done[0]).toMatch(/^Planned day by day: \d+ to-dos|^Planned for/);
  await page.keyboard.press("ControlOrMeta+z");
  await expect(toast(page, "Undone.").last()).toBeVisible();
  await expect(loose.locator("[data-todo]").first()).toBeVisible();
});

test("a week is planned by keys alone, and History says what was done", async ({ page, demo }) => {
  await visit(page, `${demo.url}/week`);
  await expect(paper(page, "Proofread the bay two panel")).toBeVisible();
  const start = (await history(demo.url))[0];
  const focused = page.locator("[data-todo]:focus");
  // The first press goes to today's cup; to the left of it stands what is to place.
  await page.keyboard.press("ArrowDown");
  await expect(focused).toHaveAttribute("data-todo", /.+/);
  await expect(cup(page, "2026-11-24").locator(":focus")).toHaveCount(1);
  await page.keyboard.press("ArrowLeft");
  await expect(page.locator(".loose :focus")).toContainText("Decide the colour of bay two");
  await page.keyboard.press("4");
  await expect(cup(page, "2026-11-27").locator(":focus")).toContainText("Decide the colour");
  await page.keyboard.press(">");
  await expect(cup(page, "2026-11-28").locator(":focus")).toContainText("Decide the colour");
  await page.keyboard.press("<");
  await expect(cup(page, "2026-11-27").locator(":focus")).toContainText("Decide the colour");
  await page.keyboard.press("+");
  await expect(cup(page, "2026-11-27").locator(":focus")).toHaveAccessibleName(/, 45 min/);
  await page.keyboard.press("Enter");
  await expect(slip(page)).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(slip(page)).toBeHidden();
  await expect
    .poll(async () => (await history(demo.url)).slice(0, 5))
    .toEqual([
      "Changed: “Decide the colour of bay two”, takes: 30 min → 45 min",
      expect.stringContaining("Planned for Fri 27 Nov 2026: “Decide the colour of bay two”"),
      expect.stringContaining("Planned for Sat 28 Nov 2026: “Decide the colour of bay two”"),
      expect.stringContaining("Planned for Fri 27 Nov 2026: “Decide the colour of bay two”"),
      start,
    ]);

  // Keys that come faster than answers add up, and the focus goes along.
  await page.locator('.page [data-todo][tabindex="0"]').first().focus();
  await page.keyboard.press("ArrowUp");
  await paper(page, "Decide the colour of bay two").focus();
  for (const key of ["<", "<", "<", ">"]) await page.keyboard.press(key);
  await expect
    .poll(async () => (await history(demo.url)).slice(0, 2))
    .toEqual([
      expect.stringContaining("Planned for Wed 25 Nov 2026"),
      expect.stringContaining("Planned for Tue 24 Nov 2026"),
    ]);
  await expect(cup(page, "2026-11-25").locator(":focus")).toContainText("Decide the colour");
  // What is ticked stays, struck, while the focus is on it; another press takes the tick back.
  const ticked = paper(cup(page, "2026-11-25"), "Decide the colour of bay two");
  await page.keyboard.press(" ");
  await expect(toast(page, "Done: “Decide the colour of bay two”")).toBeVisible();
  await expect(ticked).toHaveClass(/struck/);
  await page.keyboard.press(" ");
  await expect(ticked).not.toHaveClass(/struck/);
  await expect.poll(async () => (await history(demo.url))[0]).toContain("Open again");
  await page.keyboard.press(" ");
  await expect(ticked).toHaveClass(/struck/);
  await page.keyboard.press("ArrowUp");
  await expect(cup(page, "2026-11-25").locator("[data-todo]:focus")).toHaveCount(1);
  await expect(cup(page, "2026-11-25").locator("[data-todo]:focus")).not.toContainText(
    "Decide the colour",
  );
  await expect(ticked).toHaveCount(0);
});

test("a slip has the keys of a row, and no key falls through what they open", async ({
  page,
  demo,
  complaints,
}) => {
  await visit(page, `${demo.url}/week`);
  const label = paper(page, "Order mount board");
  const done = async () => (await history(demo.url))[0];
  await label.focus();
  await page.keyboard.press("j");
  await page.keyboard.press("k");
  const start = await latest(demo.url);
  for (const [key, layer] of Object.entries({ d: "due", l: "list", t: "tags", r: "repeat" })) {
    await label.focus();
    await page.keyboard.press(key);
    await expect(page.locator(`[data-layer="${layer}"]`)).toBeVisible();
    await page.keyboard.press("Escape");
    await expect(page.locator(`[data-layer="${layer}"]`)).toBeHidden();
  }
  expect(await latest(demo.url)).toBe(start);
  await label.focus();
  await page.keyboard.type("m50");
  await page.keyboard.press("Enter");
  await expect.poll(done).toContain("takes: 20 min → 50 min");
  await label.focus();
  await page.keyboard.press("Shift+P");
  await expect.poll(done).toContain("priority");
  await label.focus();
  await page.keyboard.press("Delete");
  await expect.poll(done).toContain("In the bin: “Order mount board");
  await expect(label).toHaveCount(0);
  // Keys may be faster than the answers: the page sends such a one again by itself.
  expect(complaints.every((c) => c.includes("412"))).toBe(true);
  complaints.length = 0;
});

test("heights are minutes: one scale for all cups, and no slip lower than is said", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/week`);
  await expect(paper(page, "Hanging plan for bay one")).toBeVisible();
  await cup(page, "2026-11-24").locator(".name").click(); // opened, it has a measure of its own
  await expect(cup(page, "2026-11-24").locator(".face")).toHaveCount(0);
  const week = (await (await fetch(`${demo.url}/api/week`)).json()) as {
    days: {
      day: string;
      worked: number;
      slips: { todo: { id: string }; minutes: number; hours: string }[];
    }[];
  };
  const high = async (l: Locator) => (await l.boundingBox())!.height;
  const scale = (await high(cup(page, "2026-11-27").locator(".walls"))) / 450;
  for (const d of week.days)
    expect(await high(cup(page, d.day).locator(".walls"))).toBeCloseTo(d.worked * scale, 0);
  // Each slip is as high as its minutes, of the days that are not over; low ones as high as is
  // said, and lower where a cup would seem too full for that.
  let measured = 0;
  for (const d of week.days.slice(2))
    for (const s of d.slips.filter((s) => s.hours === "working")) {
      const height = await high(page.locator(`[data-todo="${s.todo.id}"]`));
      if (s.minutes * scale >= 19) expect(height).toBeCloseTo(s.minutes * scale, 0);
      else expect([4, 7, 10, 13, 16, 19].some((h) => Math.abs(h - height) < 0.6)).toBe(true);
      measured++;
    }
  expect(measured).toBeGreaterThan(10);
});

test("another week, and on a phone today's cup first", async ({ page, demo, browser }) => {
  await visit(page, `${demo.url}/week`);
  await page.getByRole("button", { name: "The week after" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Week 49");
  await expect(cup(page, "2026-12-03")).toContainText("Trustees");
  await page.getByRole("button", { name: "The week before" }).click();
  await page.getByRole("button", { name: "The week before" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Week 47");
  await expect(says(page)).toHaveText("This week is over.");

  const phone = await browser.newPage({ viewport: { width: 390, height: 844 }, hasTouch: true });
  await phone.goto(`${demo.url}/week`);
  await expect(paper(phone, "Ring the framer about mount board")).toBeInViewport();
  await paper(phone, "Ring the framer about mount board").tap();
  await expect(slip(phone)).toBeVisible();
  await phone.close();
});

test("a shelf takes own hours: saucers hold its work, an evening at home is not late", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/week`);
  const wednesday = cup(page, "2026-11-25");
  await expect(wednesday).toHaveAccessibleName(
    /7 h 45 of 7 h, 45 min over, own hours 45 min of 3 h, 10 slips/,
  );
  await expect(says(page)).toContainText("In own hours: 4 h 50 of work, 23 h 30 of hours.");
  // Arrows go from the cup into its saucer; what lies there moves by the same keys.
  await paper(wednesday, "Book the piano tuner").focus();
  await page.keyboard.press("ArrowDown");
  await expect(paper(wednesday, "Seed order, add up")).toBeFocused();
  await page.keyboard.press("ArrowDown");
  await expect(paper(wednesday, "Replace the bulb")).toBeFocused();
  await page.keyboard.press(">");
  await expect(wednesday).toHaveAccessibleName(/own hours 30 min of 3 h/);
  await expect
    .poll(async () => (await history(demo.url))[0])
    .toContain("Replace the bulb in the stair");
  await page.keyboard.press("ControlOrMeta+z");
  await expect(wednesday).toHaveAccessibleName(/own hours 45 min of 3 h/);

  // The shelf's menu says which hours it takes, and another word there moves its work.
  const menu = () => page.getByRole("button", { name: "More for the shelf Home" }).click();
  await menu();
  await expect(page.getByRole("menuitemradio", { name: "Takes own hours" })).toBeChecked();
  await page.getByRole("menuitemradio", { name: "Takes working hours" }).click();
  await expect(wednesday).toHaveAccessibleName(/8 h 30 of 7 h, 1 h 30 over, 10 slips/);
  await expect
    .poll(async () => (await history(demo.url))[0])
    .toBe("“Home” now takes working hours");
  await page.keyboard.press("ControlOrMeta+z");
  await expect(wednesday).toHaveAccessibleName(/7 h 45 of 7 h/);
  await menu();
  await page.getByRole("menuitemradio", { name: "Takes no hours" }).click();
  await expect(wednesday).toHaveAccessibleName(/7 h 45 of 7 h, 45 min over, 10 slips/);
  await expect(paper(wednesday, "Seed order, add up")).toBeVisible();
  await page.keyboard.press("ControlOrMeta+z");
  await expect(wednesday).toHaveAccessibleName(/own hours 45 min of 3 h/);

  // At 19:44 a to-do that is due today can still be done: it is not late.
  await demo.setClock("2026-11-24T19:44:00");
  await page.goto(`${demo.url}/today`);
  const holds = page.locator(".holds");
  await expect(holds).toContainText("no working hours left");
  await expect(holds).toContainText("outside your working hours");
  await expect(holds).not.toContainText("late");
});
