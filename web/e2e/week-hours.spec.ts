import type { Locator, Page } from "@playwright/test";
import { finger } from "./finger";
import { standIn } from "./stand-in";
import { expect, history, latest, test, toast, visit } from "./tincup";

const cup = (page: Page, day: string) => page.locator(`[data-day="${day}"]`);
const paper = (within: Page | Locator, title: string) =>
  within.locator("[data-todo]").filter({ hasText: title });
const says = (page: Page) => page.locator(".page .says").first();
const tuesday = "2026-11-24";
const friday = "2026-11-27";

/** Where a time of a day lies in its opened cup, in pixels of the window. */
async function place(page: Page, day: string, time: string) {
  const hour = cup(page, day)
    .locator(".hour")
    .filter({ hasText: `${time.slice(0, 2)}:00` });
  const tracks = (await cup(page, day).locator("[data-tracks]").boundingBox())!;
  const line = (await hour.boundingBox())!;
  const next = await cup(page, day).locator(".hour").nth(1).boundingBox();
  const first = await cup(page, day).locator(".hour").nth(0).boundingBox();
  const height = next!.y - first!.y;
  return {
    x: tracks.x + tracks.width * 0.6,
    y: line.y + (height * Number(time.slice(3))) / 60 + 3,
  };
}
/** Drags from the middle of an element to a point, in a few steps as a hand does. */
async function drag(page: Page, from: Locator, to: { x: number; y: number }) {
  await from.hover();
  await page.mouse.down();
  await page.mouse.move(to.x - 8, to.y - 8, { steps: 6 });
  await page.mouse.move(to.x, to.y, { steps: 3 });
}

test("a slip is placed on an hour by mouse, pulled longer, and an event comes under it", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/week`);
  const today = cup(page, tuesday);
  await expect(today.getByRole("button", { name: "Tue 24" })).toHaveAttribute(
    "aria-expanded",
    "true",
  );
  // From what is to place, to an hour: where it would lie is shown before it is let go.
  await drag(
    page,
    paper(page.locator(".loose"), "Decide the colour of bay two"),
    await place(page, tuesday, "14:15"),
  );
  await expect(today.locator(".ghost")).toHaveText("14:15–14:45");
  await page.mouse.up();
  await expect(
    toast(page, "Planned for Tue 24 Nov 2026, 14:15 for 30 min: “Decide the colour of bay two”"),
  ).toBeVisible();
  const slot = today.locator(".slot").filter({ hasText: "Decide the colour of bay two" });
  await expect(slot).toContainText("14:15");

  // Its lower edge is pulled: the length is said meanwhile, and Esc lets go of it.
  const grip = slot.locator(".grip");
  const hour = 34;
  for (const escape of [true, false]) {
    await grip.hover();
    const at = (await grip.boundingBox())!;
    await page.mouse.down();
    await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2 + hour, { steps: 5 });
    await expect(slot.locator(".told")).toContainText(/14:15–15:\d\d, 1 h \d\d/);
    if (escape) await page.keyboard.press("Escape");
    await page.mouse.up();
    await expect(slot.locator(".told")).toHaveCount(0);
    if (escape) expect((await history(demo.url))[0]).not.toContain("takes");
  }
  await expect
    .poll(async () => (await history(demo.url))[0])
    .toMatch(/“Decide the colour of bay two”.*plan: .*30 min → .*1 h.*takes: 30 min → 1 h/);

  // The calendar moves a meeting under it, and the page says so.
  await (
    await standIn(demo.url)
  ).put("walk@museum", {
    title: "Lift repair",
    start: `${tuesday}T14:30`,
    end: `${tuesday}T16:00`,
  });
  const { id } = (
    (await (await fetch(`${demo.url}/api/calendars`)).json()) as { id: string; name: string }[]
  ).find((c) => c.name === "Museum")!;
  await demo.post(`/api/calendars/${id}/refresh`, {});
  await expect(says(page)).toContainText(
    "“Decide the colour of bay two”, Tuesday 14:15, lies under “Lift repair”",
  );
  await expect(slot.locator("[data-todo]")).toHaveAccessibleName(/lies under “Lift repair”/);
  await expect(today.locator(".face .event").filter({ hasText: "Lift repair" })).toBeVisible();

  // Back to no hour: dropped beside the hours.
  await drag(page, slot.locator("[data-todo]"), {
    x: (await today.locator(".untimed").boundingBox())!.x + 40,
    y: (await today.locator(".untimed").boundingBox())!.y + 8,
  });
  await page.mouse.up();
  await expect(paper(today.locator(".untimed"), "Decide the colour of bay two")).toBeVisible();
  await expect(says(page)).not.toContainText("Lift repair");

  // Let go of outside of everything: nothing happens.
  const before = await latest(demo.url);
  await drag(page, paper(today.locator(".untimed"), "Decide the colour of bay two"), {
    x: 700,
    y: 20,
  });
  await page.mouse.up();
  await expect(paper(today.locator(".untimed"), "Decide the colour of bay two")).toBeVisible();
  expect(await latest(demo.url)).toBe(before);
});

test("hours by keys alone: laid, moved, made longer, taken; and the day's own hours", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/week`);
  const day = cup(page, friday);
  await paper(day, "Order mount board").focus();
  await page.keyboard.press("o");
  await expect(day.locator(".face")).toBeVisible();
  await expect(cup(page, tuesday).locator(".face")).toHaveCount(0);
  await expect(paper(day, "Order mount board")).toBeFocused();
  // The first quarter is the first that is free; keys pressed ahead of the answers add up.
  const start = await latest(demo.url);
  await page.keyboard.press("Alt+ArrowDown");
  await page.keyboard.press("Alt+ArrowDown");
  await page.keyboard.press("Alt+ArrowDown");
  await page.keyboard.press("Alt+ArrowUp");
  await page.keyboard.press("+");
  const focused = day.locator("[data-todo]:focus");
  await expect(focused).toHaveAccessibleName(/Order mount board.*35 min, at 09:15/);
  await expect.poll(async () => (await latest(demo.url)) - start).toBe(5);
  // A day on and back it keeps its hour; a digit plans on the day and lets go of it.
  await page.keyboard.press(">");
  await expect(cup(page, "2026-11-28").locator("[data-todo]:focus")).toHaveAccessibleName(
    /Order mount board.*at 09:15/,
  );
  await page.keyboard.press("<");
  await expect(focused).toHaveAccessibleName(/Order mount board.*35 min, at 09:15/);
  await page.keyboard.press("4");
  await expect(paper(day.locator(".untimed"), "Order mount board")).toBeFocused();

  // What is proposed is taken one by one, and all at once.
  await day.getByRole("button", { name: "Lay out the hours" }).press("Enter");
  const verdict = page.locator(".says.proposal");
  await expect(verdict).toContainText(/\d+ would have their hours\./);
  const proposed = day.locator("[data-proposal]");
  const n = await proposed.count();
  await paper(day, "Order mount board").focus();
  await page.keyboard.press(".");
  await expect(proposed).toHaveCount(n - 1);
  await verdict.getByRole("button", { name: /^Take all/ }).press("Enter");
  await expect(proposed).toHaveCount(0);
  await expect(day.locator(".untimed [data-todo]")).toHaveCount(0);
  await page.keyboard.press("ControlOrMeta+z");
  await expect(day.locator(".untimed [data-todo]")).toHaveCount(n - 1);

  // Away: no key falls through the chooser, and what lay there is outside of hours.
  await paper(day, "Order mount board").focus();
  await page.keyboard.press("w");
  await expect(page.locator("[data-layer=hours]")).toBeVisible();
  const options = page.getByRole("option");
  await expect(options).toContainText(["As usual", "Away", "Short", "Long"]);
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(toast(page, "Hours on Fri 27 Nov: away")).toBeVisible();
  await expect(day).toHaveAccessibleName(/no hours/);
  await page.keyboard.press("ControlOrMeta+z");
  await expect(day).toHaveAccessibleName(/of 7 h 30/);
  // Typed ahead of the page, as people type them; what is refused is said.
  await paper(day, "Order mount board").focus();
  await page.keyboard.type("w9-12");
  await page.keyboard.press("Enter");
  await expect(day).toHaveAccessibleName(/of 3 h/);
  expect((await history(demo.url))[0]).toBe("Hours on Fri 27 Nov: 09:00-12:00");
});

test("what has to give offers another due; a job longer than its days is split", async ({
  page,
  demo,
  complaints,
}) => {
  for (const title of ["Re-hang the foghorn", "Rebuild the plinth", "Repaint the lantern room"])
    await demo.post("/api/todos", { title, estimate: 480, due: friday, priority: "high" });
  const small = await demo.post("/api/todos", {
    title: "Sort the old tickets",
    estimate: 420,
    due: friday,
  });
  await visit(page, `${demo.url}/week`);
  await expect(says(page)).toContainText("more is due than your working hours hold");
  await page.getByRole("button", { name: "What has to give" }).click();
  const give = page.getByRole("region", { name: "What has to give" });
  await expect(give).toContainText("all else is done in time");
  const row = give.locator(`[data-give="${small.id}"]`);
  await expect(row).toContainText("7 h of work");
  const rows = await give.locator("[data-give]").count();
  await row.getByRole("button", { name: /^Due .* instead$/ }).click();
  await expect(toast(page, "Changed: “Sort the old tickets”, due: ")).toBeVisible();
  await expect(row).toHaveCount(0);
  await expect(give.locator("[data-give]")).toHaveCount(rows - 1);
  await page.keyboard.press("ControlOrMeta+z");
  await expect(row).toBeVisible();
  // Let go of in the place of that.
  await row.getByRole("button", { name: "Let it go" }).click();
  await expect.poll(async () => (await history(demo.url))[0]).toContain("“Sort the old tickets”");
  await expect(row).toHaveCount(0);
  await give.getByRole("button", { name: "Put away" }).click();

  await demo.post("/api/todos", { title: "Write the catalogue", estimate: 1000, plan: "2026-W48" });
  await page.getByRole("button", { name: "Level the week" }).click();
  await page.getByRole("button", { name: /^Split “Write the catalogue”, 16 h 40, into 3/ }).click();
  await expect(toast(page, "Split: “Write the catalogue” into 3 parts")).toBeVisible();
  await expect(paper(page.locator(".loose"), "Write the catalogue, part 1 of 3")).toBeVisible();
  expect(complaints).toEqual([]);
});

test("marks are chosen and kept, and Ready stands among what is to place on demand", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/week`);
  const title = paper(page, "Order mount board").locator(".title");
  const line = () => title.evaluate((el) => getComputedStyle(el).textDecorationStyle);
  await page.getByLabel("marked by").selectOption("priority");
  await expect.poll(line).not.toBe("solid");
  await page.reload();
  await expect(page.getByLabel("marked by")).toHaveValue("priority");
  await expect.poll(line).not.toBe("solid");
  const loose = page.locator(".loose");
  await expect(loose.locator("[data-todo]").first()).toBeVisible();
  const few = await loose.locator("[data-todo]").count();
  await loose.getByRole("combobox").selectOption("ready");
  await expect.poll(() => loose.locator("[data-todo]").count()).toBeGreaterThan(few + 10);
  const first = loose.locator("[data-todo]").nth(few);
  const id = (await first.getAttribute("data-todo"))!;
  await first.focus();
  await page.keyboard.press("4");
  await expect
    .poll(async () => {
      const todo = await (await fetch(`${demo.url}/api/todos/${id}`)).json();
      return (todo as { plan: string }).plan;
    })
    .toBe(friday);
});

test.describe("on a phone", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test("a week is planned by touch: onto an hour, onto the rim of another day", async ({
    page,
    demo,
  }) => {
    await visit(page, `${demo.url}/week`);
    const touch = await finger(page);
    const middle = async (l: Locator) => {
      const box = (await l.boundingBox())!;
      return { x: box.x + Math.min(box.width / 2, 60), y: box.y + box.height / 2 };
    };
    const slip = paper(page.locator(".loose"), "Decide the colour of bay two");
    await expect(slip).toBeVisible();
    await touch.down(await middle(slip));
    await touch.rest();
    await expect(page.locator(".drag-slip")).toHaveText("Decide the colour of bay two");
    await touch.to(await place(page, tuesday, "15:00"));
    await expect(page.locator(".ghost")).toHaveText("15:00–15:30");
    await touch.up();
    await expect(toast(page, "Planned for Tue 24 Nov 2026, 15:00 for 30 min")).toBeVisible();

    // The seven rims above stand for their days.
    const rims = page.getByRole("navigation", { name: "Days of the week" }).getByRole("button");
    const lying = paper(cup(page, tuesday), "Decide the colour of bay two");
    await touch.down(await middle(lying));
    await touch.rest();
    await touch.to(await middle(rims.nth(4)));
    await touch.up();
    await expect(toast(page, "Planned for Fri 27 Nov 2026: “Decide the colour")).toBeVisible();
    await rims.nth(4).tap();
    await expect(paper(cup(page, friday), "Decide the colour of bay two")).toBeInViewport();
    await expect(rims.nth(4)).toHaveAttribute("aria-current", "true");
  });
});

test("a slip that another window moves is dropped; the server goes in the middle of a drag; a very full week", async ({
  page,
  context,
  tincup,
  complaints,
}) => {
  const board = "Order mount board";
  await tincup.post("/api/todos", { title: board, estimate: 20, plan: friday });
  for (let i = 0; i < 60; i++)
    await tincup.post("/api/todos", {
      title: i % 20 ? `Slip ${i}` : "Ünusually long ".repeat(33),
      estimate: [1, 2000, 20][i % 3],
      plan: i % 2 ? "2026-11-28" : "2026-W48",
    });
  await visit(page, `${tincup.url}/week`);
  const other = await context.newPage();
  await other.goto(`${tincup.url}/week`);
  await drag(page, paper(page, board), await place(page, tuesday, "15:00"));
  // Meanwhile the other plans it for another day: the slip leaves from under the hand.
  await paper(other, board).focus();
  await other.keyboard.press("2");
  await expect(paper(cup(page, "2026-11-25"), board)).toBeVisible();
  await page.mouse.move(600, 500, { steps: 3 });
  const to = await place(page, tuesday, "16:00");
  await page.mouse.move(to.x, to.y, { steps: 3 });
  await page.mouse.up();
  for (const window of [page, other])
    await expect(paper(cup(window, tuesday), board)).toHaveAccessibleName(/at 16:00/);
  expect((await history(tincup.url)).slice(0, 2)).toEqual([
    expect.stringContaining("Planned for Tue 24 Nov 2026, 16:00 for 20 min"),
    expect.stringContaining("Planned for Wed 25 Nov 2026"),
  ]);
  await other.close();
  // The day without room says how many there are more, and how long they take.
  await expect(cup(page, "2026-11-28").locator(".more")).toContainText(/and \d+ more, \d+ h/);

  await drag(page, paper(page, board), await place(page, tuesday, "10:00"));
  await tincup.stop();
  await page.mouse.up();
  await expect(toast(page, "away").last()).toBeVisible();
  await expect(paper(cup(page, tuesday), board)).toHaveAccessibleName(/at 16:00/);
  await tincup.launch();
  await expect(page.getByText("The server is away.")).toHaveCount(0);
  await expect(paper(cup(page, tuesday), board)).toHaveAccessibleName(/at 16:00/);
  complaints.length = 0; // of the server that was away
});
