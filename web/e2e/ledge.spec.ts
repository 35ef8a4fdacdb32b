import type { Page } from "@playwright/test";
import { expect, test, toast, visit } from "./tincup";

/** Every screen of the page, and what of it is not a view by itself. */
const screens = [
  "/cup",
  "/today",
  "/today?shape=columns",
  "/overdue",
  "/ready?shape=two-by-two",
  "/waiting",
  "/here",
  "/week",
  "/upcoming",
  "/within-a-week",
  "/projects",
  "/comes-round",
  "/open",
  "/done",
  "/bin",
  "/history",
  "/people",
  "/places",
  "/tags",
  "/away",
  "/review",
  "/review/weekly",
  "/settings",
  "/search?q=lamp",
  "/rail/2026-11-25",
  "/view/new",
];

/**
 * The controls and texts in sight that a line covers, and those of the line that anything else covers: each is asked
 * for at its middle.
 */
const covered = (page: Page) =>
  page.evaluate(() => {
    const found: string[] = [];
    const lines = [...document.querySelectorAll(".ledge, .messages")];
    const clipped = (el: Element): DOMRect => {
      let { left, top, right, bottom } = el.getBoundingClientRect();
      for (let up = el.parentElement; up; up = up.parentElement) {
        const style = getComputedStyle(up);
        if (style.overflowX === "visible" && style.overflowY === "visible") continue;
        const r = up.getBoundingClientRect();
        [left, top] = [Math.max(left, r.left), Math.max(top, r.top)];
        [right, bottom] = [Math.min(right, r.right), Math.min(bottom, r.bottom)];
      }
      return new DOMRect(left, top, right - left, bottom - top);
    };
    const texts = [...document.querySelectorAll("#app *")].filter(
      (el) =>
        el.matches("button, a, input, select, textarea, summary, [tabindex]") ||
        [...el.childNodes].some((n) => n.nodeType === Node.TEXT_NODE && n.textContent?.trim()),
    );
    for (const el of texts) {
      if (!el.checkVisibility({ visibilityProperty: true, opacityProperty: true })) continue;
      const r = clipped(el);
      if (r.width < 4 || r.height < 4) continue;
      const there = document.elementsFromPoint(r.left + r.width / 2, r.top + r.height / 2)[0];
      const line = lines.find((l) => l.contains(el));
      const other = lines.find((l) => there && l.contains(there));
      if (line !== other)
        found.push(`${el.tagName} “${el.textContent?.trim().slice(0, 40)}” by ${there?.className}`);
    }
    return found;
  });

for (const size of [
  { width: 1280, height: 800 },
  { width: 1024, height: 700 },
  { width: 390, height: 844 },
])
  test(`rings and messages cover nothing of any screen at ${size.width}x${size.height}`, async ({
    page,
    demo,
    complaints,
  }) => {
    test.setTimeout(150_000);
    await page.setViewportSize(size);
    for (const title of [
      "Wind the clock",
      "A reminder with a title that is far too long for any line of a page, as some are",
    ])
      await demo.post("/api/todos", { title, reminders: ["2026-11-24T09:20"] });
    await visit(page, `${demo.url}/today`);
    demo.setClock("2026-11-24T09:20:00");
    const { shelves, tags, people } = (await (await fetch(`${demo.url}/api/overview`)).json()) as {
      shelves: { lists: { id: string }[] }[];
      tags: { id: string }[];
      people: { id: string }[];
    };
    const slip = (await (await fetch(`${demo.url}/api/views/today`)).json()) as {
      groups: { rows: { todo: { id: string } }[] }[];
    };
    const all = [
      ...screens,
      `/list/${shelves[0]!.lists[0]!.id}`,
      `/tag/${tags[0]!.id}`,
      `/person/${people[0]!.id}`,
      `/today?slip=${slip.groups[0]!.rows[0]!.todo.id}`,
    ];
    let looked = 0;
    for (const screen of all) {
      await page.goto(`${demo.url}${screen}`);
      await expect(page.getByRole("heading", { level: 1 }).first()).toBeVisible();
      await expect(page.locator(".ledge article")).toBeVisible();
      await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
      await page.keyboard.press("ControlOrMeta+z"); // it says something, be it that there is nothing to undo
      await expect(page.locator(".toast")).toBeVisible();
      const found = await covered(page);
      expect(found, screen).toEqual([]);
      looked++;
    }
    expect(looked).toBe(all.length);
    complaints.length = 0; // an undo of nothing is refused
  });

test("a message comes when the pointer rests, never over the bar of chosen rows, and goes likewise", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  await page.locator("main [data-todo]").first().focus();
  await page.keyboard.press("x");
  await expect(page.getByRole("toolbar", { name: "The rows that are chosen" })).toBeVisible();
  const sheet = async () => (await page.locator("main.sheet").boundingBox())!.height;
  const before = await sheet();
  const tick = page.locator("main [data-todo] .tick").nth(3);
  await tick.click();
  for (let i = 0; i < 12; i++) {
    await page.mouse.move(600 + 5 * i, 700);
    await page.waitForTimeout(100);
    expect(await sheet()).toBe(before);
  }
  await expect(toast(page, /^Done/)).toBeVisible();
  expect(await sheet()).toBeLessThan(before);
  expect(await covered(page)).toEqual([]);
  await page.getByRole("button", { name: "Put this message away" }).click();
  await expect.poll(sheet).toBe(before);
});
