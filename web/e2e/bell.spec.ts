import type { BrowserContext, Locator, Page } from "@playwright/test";
import { expect, history, row, test, toast, type Tincup, visit } from "./tincup";

const card = (page: Page, title: string) =>
  page.getByRole("article", { name: `Reminder: ${title}` });
const bell = (page: Page) => page.getByRole("button", { name: /^Bell/ });
const list = (page: Page) => page.getByRole("dialog", { name: "Bell" });

/** Something that rings, and when. */
const ringing = (t: Tincup, title: string, at: string) =>
  t.post("/api/todos", { title, reminders: [`2026-11-24T${at}`] });

const open = async (t: Tincup) =>
  ((await (await fetch(`${t.url}/api/bell`)).json()) as { open: { title: string }[] }).open.map(
    (r) => r.title,
  );

/** Counts what a window plays, and lets it be hidden. */
async function watched(context: BrowserContext) {
  await context.addInitScript(() => {
    const w = window as unknown as { played: string[]; hide: (hidden: boolean) => void };
    w.played = [];
    HTMLMediaElement.prototype.play = function () {
      w.played.push(this.src);
      return Promise.resolve();
    };
    let hidden = false;
    Object.defineProperty(document, "visibilityState", {
      get: () => (hidden ? "hidden" : "visible"),
    });
    w.hide = (now) => {
      hidden = now;
      document.dispatchEvent(new Event("visibilitychange"));
    };
  });
}
const played = (page: Page) =>
  page.evaluate(() => (window as unknown as { played: string[] }).played.length);
const hide = (page: Page, hidden: boolean) =>
  page.evaluate((h) => (window as unknown as { hide: (h: boolean) => void }).hide(h), hidden);

test("a ring shows in two windows with one sound; put off in one it is gone in the other, and comes again", async ({
  context,
  page,
  tincup,
}) => {
  await watched(context);
  await ringing(tincup, "Ring the insurer", "09:15");
  await visit(page, `${tincup.url}/today`);
  await page.keyboard.press("n");
  await page.keyboard.type("Feed the gulls\n");
  await expect(toast(page, "Put in: “Feed the gulls”")).toBeVisible();
  await page.keyboard.press("Escape");
  const other = await context.newPage();
  await other.goto(`${tincup.url}/ready`); // it shares the stream of the first
  await expect(other.getByRole("heading", { level: 1 })).toBeVisible();
  tincup.setClock("2026-11-24T09:15:00");
  for (const p of [page, other]) {
    await expect(card(p, "Ring the insurer")).toContainText("09:15");
    await expect(bell(p)).toHaveAccessibleName("Bell: 1 reminder");
    await expect(p).toHaveTitle(/^\(1\) /);
  }
  await expect.poll(async () => (await played(page)) + (await played(other))).toBe(1);

  await card(page, "Ring the insurer").getByRole("button", { name: "Later…" }).click();
  await page.getByRole("button", { name: /^In 10 minutes/ }).click();
  for (const p of [page, other]) {
    await expect(card(p, "Ring the insurer")).toHaveCount(0);
    await expect(p).toHaveTitle(/^[^(]/);
  }
  await expect(toast(page, "Rings again Tue 24 Nov 09:25: “Ring the insurer”")).toBeVisible();
  // What was done before it is what Ctrl+Z undoes.
  await page.keyboard.press("Control+z");
  await expect(toast(page, "Undone. Put in: “Feed the gulls”")).toBeVisible();

  tincup.setClock("2026-11-24T09:25:00");
  await expect(card(other, "Ring the insurer")).toBeVisible();
  await expect.poll(async () => (await played(page)) + (await played(other))).toBe(2);
  await card(other, "Ring the insurer").getByRole("button", { name: "Done" }).click();
  await expect(card(page, "Ring the insurer")).toHaveCount(0);
  // Undone it is open again, and silent; a reload changes nothing of that.
  await toast(other, "Done: “Ring the insurer”").getByRole("button", { name: "Undo" }).click();
  await expect(card(page, "Ring the insurer")).toBeVisible();
  const before = await played(other);
  await page.reload();
  await expect(card(page, "Ring the insurer")).toBeVisible();
  await card(page, "Ring the insurer").getByRole("button", { name: "Seen" }).click();
  await expect(card(other, "Ring the insurer")).toHaveCount(0);
  expect([await played(page), await played(other)]).toEqual([0, before]);
  expect((await history(tincup.url)).slice(0, 6)).toEqual([
    "Seen: “Ring the insurer”",
    "Undone. Done: “Ring the insurer”",
    "Done: “Ring the insurer”",
    "Rang: “Ring the insurer”",
    "Undone. Put in: “Feed the gulls”",
    "Rings again Tue 24 Nov 09:25: “Ring the insurer”",
  ]);
});

test("the bell by keys alone, typed ahead of the page", async ({ page, demo, complaints }) => {
  for (const title of ["Wind the clock", "Feed the gulls", "Oil the hinge", "Post the keys"])
    await ringing(demo, title, "09:20");
  await visit(page, `${demo.url}/today`);
  await row(page, "Meter reading").focus();
  demo.setClock("2026-11-24T09:20:00");
  // The ledge takes no key from the row that has them.
  await expect(page.getByRole("article")).toHaveCount(1);
  await expect(page.getByRole("button", { name: "and 5 more" })).toBeVisible();
  await expect(row(page, "Meter reading")).toBeFocused();
  await page.keyboard.press("a");
  await expect(list(page).getByRole("heading")).toContainText("6 reminders");
  await list(page).getByRole("button", { name: "Later: Wind the clock" }).press("Enter");
  const later = page.getByRole("dialog", { name: "Later" });
  await expect(later.getByRole("button", { name: /^In 10 minutes/ })).toBeFocused();
  await page.keyboard.type("soonish");
  await page.keyboard.press("Enter");
  await expect(later).toContainText("is not read as a reminder");
  await later.getByLabel("Say when").fill("");
  await page.keyboard.type("tomorrow 3pm");
  await page.keyboard.press("Enter");
  await expect(later).toHaveCount(0);
  await expect(toast(page, "Rings again Wed 25 Nov 15:00: “Wind the clock”")).toBeVisible();
  await page.keyboard.press("a");
  await expect(list(page)).toContainText("Rings again");
  await list(page).getByRole("button", { name: "All seen" }).press("Enter");
  await expect(list(page)).toContainText("Nothing rings");
  await page.keyboard.press("Escape");
  await expect(list(page)).toHaveCount(0);
  await expect
    .poll(async () => (await history(demo.url)).slice(0, 3))
    .toEqual([
      "Seen: 5 reminders",
      "Rings again Wed 25 Nov 15:00: “Wind the clock”",
      "Rang: 6 reminders",
    ]);
  expect(complaints.every((c) => c.includes("422"))).toBe(true); // of words that are none yet
  complaints.length = 0;
});

test("where no window is in sight the browser tells, and what is pressed there is done", async ({
  context,
  page,
  tincup,
}) => {
  await watched(context);
  await context.grantPermissions(["notifications"], { origin: tincup.url });
  await ringing(tincup, "Call the harbour", "09:15");
  await ringing(tincup, "Water the plot", "09:20");
  await visit(page, `${tincup.url}/today`);
  const worker = context.serviceWorkers()[0] ?? (await context.waitForEvent("serviceworker"));
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  const other = await context.newPage();
  await other.goto(`${tincup.url}/ready`); // it shares the stream of the first
  await expect(other.getByRole("heading", { level: 1 })).toBeVisible();
  for (const p of [page, other]) await hide(p, true);
  const shown = () =>
    page.evaluate(async () => {
      const at = await navigator.serviceWorker.getRegistration();
      return ((await at?.getNotifications()) ?? []).map((n) => n.title);
    });
  const press = (title: string, action: string) =>
    worker.evaluate(
      async ([title, action]) => {
        const here = globalThis as unknown as {
          registration: { getNotifications(): Promise<{ title: string }[]> };
          dispatchEvent(e: Event): boolean;
        };
        const notification = (await here.registration.getNotifications()).find(
          (n) => n.title === title,
        );
        const Kind = (globalThis as unknown as Record<string, new (...a: unknown[]) => Event>)[
          "NotificationEvent"
        ]!;
        here.dispatchEvent(new Kind("notificationclick", { notification, action }));
      },
      [title, action] as const,
    );

  tincup.setClock("2026-11-24T09:15:00");
  await expect.poll(shown).toEqual(["Call the harbour"]);
  expect((await played(page)) + (await played(other))).toBe(0);
  await press("Call the harbour", "done");
  await expect.poll(() => open(tincup)).toEqual([]);
  await expect.poll(shown).toEqual([]);
  expect((await history(tincup.url))[0]).toBe("Done: “Call the harbour”");

  // A window that has not heard of a ring yet does not take back what another has shown.
  let hears = () => {};
  const heard = new Promise<void>((come) => (hears = come));
  await other.route("**/api/bell", async (route) => {
    await heard;
    await route.continue();
  });
  tincup.setClock("2026-11-24T09:20:00");
  await expect.poll(shown).toEqual(["Water the plot"]);
  await hide(other, true);
  await other.waitForTimeout(300);
  expect(await shown()).toEqual(["Water the plot"]);
  hears();
  // A window that comes back into sight has the card, and the notification goes.
  await hide(other, false);
  await expect(card(other, "Water the plot")).toBeVisible();
  await expect.poll(shown).toEqual([]);
  await card(other, "Water the plot").getByRole("button", { name: "Later…" }).click();
  await other.getByRole("button", { name: /^In an hour/ }).click();
  await expect.poll(() => open(tincup)).toEqual([]);
  // With one in sight a hidden one tells nothing.
  tincup.setClock("2026-11-24T10:20:00");
  await expect(card(other, "Water the plot")).toBeVisible();
  expect(await shown()).toEqual([]);
});

test("quiet hours and a pause hold back what comes, and it rings once at their end", async ({
  page,
  tincup,
  complaints,
}) => {
  await ringing(tincup, "Lock the store", "22:30");
  await ringing(tincup, "Stop the fan", "11:00");
  await visit(page, `${tincup.url}/settings`);
  const hours = page.locator("[data-setting=quietHours] input");
  await hours.fill("22:00-7");
  await hours.press("Enter");
  await expect(toast(page, "two times such as 22:00-07:00")).toBeVisible();
  complaints.length = 0;
  await hours.fill("22:00-07:00");
  await hours.press("Enter");
  await expect(toast(page, "quiet hours: none → 22:00-07:00")).toBeVisible();

  await bell(page).click();
  await list(page).getByRole("button", { name: "until 20:00" }).click();
  await expect(list(page)).toContainText("Quiet until 20:00. What comes rings then.");
  await page.keyboard.press("Escape");
  tincup.setClock("2026-11-24T11:00:00");
  await bell(page).click();
  await expect(list(page)).toContainText("Quiet until 20:00. Something came, and rings then.");
  await list(page).getByRole("button", { name: "Ring again now" }).click();
  await expect(list(page)).toContainText("Stop the fan");
  await list(page).getByRole("button", { name: "Seen: Stop the fan" }).click();
  await page.keyboard.press("Escape");

  tincup.setClock("2026-11-24T22:30:00");
  await bell(page).click();
  await expect(list(page)).toContainText("Quiet until tomorrow 07:00. Something came");
  await page.keyboard.press("Escape");
  await expect(card(page, "Lock the store")).toHaveCount(0);
  tincup.setClock("2026-11-25T07:00:00");
  await expect(card(page, "Lock the store")).toContainText("yesterday 22:30");
});

test("under a finger, with the server gone, and a slip that says what becomes of reminders", async ({
  browser,
  tincup,
  complaints,
}) => {
  const phone = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  });
  const page = await phone.newPage();
  const { id } = await tincup.post("/api/todos", {
    title: "Ring the printer",
    due: "2026-11-24T10:00",
    reminders: ["-PT2H", "-PT30M", "2026-11-25T09:00"],
  });
  await visit(page, `${tincup.url}/today?slip=${id}`);
  await expect(page.getByText("does not ring: today 08:00 had passed")).toBeVisible();
  await expect(page.getByText("rings today 09:30")).toBeVisible();
  await expect(page.getByText("rings tomorrow 09:00, after the due")).toBeVisible();
  // One is typed, refused for what it says, and mended.
  await page.getByRole("button", { name: "Another reminder" }).tap();
  const typed = page.getByLabel("When to remind");
  await typed.fill("soonish");
  await typed.press("Enter");
  await expect(page.getByRole("alert")).toContainText("“soonish” is not read as a reminder");
  await typed.fill("45 min before");
  await typed.press("Enter");
  await expect(page.getByText("rings today 09:15")).toBeVisible();
  await page.getByRole("button", { name: "Take the reminder 45 minutes before away" }).tap();
  await expect(page.getByText("rings today 09:15")).toHaveCount(0);
  await page.getByRole("button", { name: "Close" }).tap();
  tincup.setClock("2026-11-24T09:30:00");
  const there = card(page, "Ring the printer");
  await expect(there).toBeVisible();
  for (const name of ["Done", "Later…", "Open", "Seen"]) {
    const box = await there.getByRole("button", { name }).boundingBox();
    expect(box!.height).toBeGreaterThanOrEqual(40);
  }
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await tincup.stop();
  await there.getByRole("button", { name: "Seen" }).tap();
  await expect(toast(page, "The server is away")).toBeVisible({ timeout: 20_000 });
  await expect(there).toBeVisible();
  await tincup.launch();
  await expect(page.getByRole("alert")).toHaveCount(0, { timeout: 20_000 });
  await there.getByRole("button", { name: "Later…" }).tap();
  await page.getByRole("button", { name: /^Tomorrow/ }).tap();
  await expect(there).toHaveCount(0);
  await expect
    .poll(() => history(tincup.url).then((h) => h[0]))
    .toBe("Rings again Wed 25 Nov 09:00: “Ring the printer”");
  await phone.close();
  expect(complaints).toEqual([]);
});

test("a person with an address is at hand when something of theirs is finished", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/waiting`);
  const waits = row(page, "Lamp insurance papers");
  await waits.getByRole("checkbox").click();
  const said = toast(page, "Registrar: registrar@harbour-archive.example");
  await expect(said).toContainText("Done: “Lamp insurance papers");
  await expect(said.getByRole("link", { name: "Write to Registrar" })).toHaveAttribute(
    "href",
    /^mailto:registrar@harbour-archive\.example\?subject=Lamp%20insurance%20papers/,
  );
});

test("a ring that comes waits until the pointer rests, and a double click answers one ring alone", async ({
  page,
  tincup,
}) => {
  for (const [title, at] of [
    ["First", "09:15"],
    ["Second", "09:16"],
    ["Third", "09:17"],
    ["Fourth", "09:18"],
  ] as const)
    await ringing(tincup, title, at);
  await visit(page, `${tincup.url}/today`);
  const ledge = page.getByRole("region", { name: "Reminders" });
  const title = page.getByRole("article").locator(".title");
  const head = async () => (await page.locator("main.sheet").boundingBox())!.y;
  const before = await head();
  // The page itself takes down how long the pointer had rested when the ledge or the sheet moved.
  await page.evaluate(() => {
    const w = window as unknown as { rested: number[]; watch: () => void };
    let moved = -Infinity;
    addEventListener("pointermove", () => (moved = performance.now()), { capture: true });
    w.rested = [];
    const seen = new MutationObserver(() => w.rested.push(performance.now() - moved));
    seen.observe(document.querySelector(".ledge")!, { childList: true }); // which ring stands there
    w.watch = () => seen.disconnect();
  });
  /** Moves the pointer about for as long as something lasts, never still for half a second. */
  const stirring = async (until: () => Promise<boolean>) => {
    for (let i = 0; !(await until()); i++) {
      await page.mouse.move(500 + (i % 7) * 9, 400);
      await page.waitForTimeout(100);
    }
  };
  const rings = (n: number) => async () =>
    (await bell(page).getAttribute("aria-label")) ===
    (n === 1 ? "Bell: 1 reminder" : `Bell: ${n} reminders`);
  for (const [i, minute] of [15, 16, 17, 18].entries()) {
    tincup.setClock(`2026-11-24T09:${minute}:00`);
    await stirring(rings(i + 1));
    await expect(title).toHaveText(["First", "Second", "Third", "Fourth"][i]!);
    expect(await head()).toBeGreaterThan(before);
  }
  const rested = await page.evaluate(() => {
    const w = window as unknown as { rested: number[]; watch: () => void };
    w.watch();
    return w.rested;
  });
  expect(rested.length).toBeGreaterThanOrEqual(4);
  expect(Math.min(...rested), "nothing moves under a pointer that has not rested").toBeGreaterThan(
    600,
  );
  await expect(page.getByRole("button", { name: "and 3 more" })).toBeVisible();
  await page.waitForTimeout(500); // what has come lies still
  /** Two presses at one place, as near to each other as a hand's. */
  const twice = async (button: Locator) => {
    const at = (await button.boundingBox())!;
    for (const pause of [40, 0]) {
      await page.mouse.click(at.x + at.width / 2, at.y + at.height / 2);
      await page.waitForTimeout(pause);
    }
  };
  await twice(ledge.getByRole("button", { name: "Seen" }));
  await expect(title).toHaveText("Third");
  await expect(page.getByRole("button", { name: "and 2 more" })).toBeVisible();
  await page.keyboard.press("a");
  await twice(list(page).getByRole("button", { name: "Seen: Third" }));
  await expect(list(page).getByRole("heading")).toContainText("2 reminders");
  expect((await history(tincup.url)).slice(0, 3)).toEqual([
    "Seen: “Third”",
    "Seen: “Fourth”",
    "Rang: “Fourth”",
  ]);
  // When none is left the page takes its room back.
  await list(page).getByRole("button", { name: "All seen" }).click();
  await page.keyboard.press("Escape");
  await expect(title).toHaveCount(0);
  await expect.poll(head).toBe(before);
});
