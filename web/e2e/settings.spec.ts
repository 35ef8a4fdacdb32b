import { type Page } from "@playwright/test";
import { defaultValues } from "../src/words/settings";
import { expect, history, morning, test, Tincup, toast, visit } from "./tincup";

const setting = (page: Page, name: string) => page.locator(`[data-setting="${name}"]`);
const pressed = (page: Page, name: string, option: string) =>
  setting(page, name).getByRole("button", { name: option, exact: true });

test("a setting chosen in one window holds in another, is told, and is undone", async ({
  page,
  context,
  tincup,
  complaints,
}) => {
  await visit(page, `${tincup.url}/settings`);
  const other = await context.newPage();
  await other.goto(`${tincup.url}/settings`);
  await expect(pressed(other, "look", "As the system")).toHaveAttribute("aria-pressed", "true");

  await pressed(page, "look", "Dark").click();
  await expect(toast(page, "Settings, look: system → dark")).toBeVisible();
  for (const window of [page, other]) {
    await expect(pressed(window, "look", "Dark")).toHaveAttribute("aria-pressed", "true");
    await expect(window.locator(".v-theme--iron").first()).toBeVisible();
  }
  // A reload is dark from its first moment.
  await other.reload();
  await expect(other.locator(".v-theme--iron").first()).toBeVisible();

  // Single keys, set off in the other window, are off in this one.
  await pressed(other, "singleKeys", "Off").click();
  await expect(pressed(page, "singleKeys", "Off")).toHaveAttribute("aria-pressed", "true");
  await page.locator("body").press("n");
  await expect(page.getByRole("combobox", { name: "Put something in" })).not.toBeFocused();
  await other.keyboard.press("Control+z");
  await expect(pressed(page, "singleKeys", "On")).toHaveAttribute("aria-pressed", "true");
  await page.locator("body").press("n");
  await expect(page.getByRole("combobox", { name: "Put something in" })).toBeFocused();
  await page.keyboard.press("Escape");

  // A day that ends at four: after midnight it is still the day before, in both.
  await setting(page, "dayStart").getByRole("combobox").selectOption("04:00");
  await expect(setting(other, "dayStart").getByRole("combobox")).toHaveValue("04:00");
  await setting(page, "dayStart").getByRole("button", { name: "Set it back" }).click();
  await expect(setting(other, "dayStart").getByRole("combobox")).toHaveValue("00:00");

  // By keys: a number and a zone that there is not.
  const days = setting(page, "urgentDays").getByRole("spinbutton");
  await days.fill("70");
  await days.press("Enter");
  await expect(toast(page, "1 to 60")).toBeVisible();
  await expect(days).toHaveValue("3");
  complaints.length = 0; // of the number that was refused
  const zone = setting(page, "zone").getByRole("combobox");
  await expect(setting(page, "zone")).toContainText("This run was started with Europe/Lisbon");
  await zone.fill("Mars/Olympus");
  await zone.press("Enter");
  await expect(toast(page, "“Mars/Olympus” is not a value of “time zone”")).toBeVisible();
  await expect(zone).toHaveValue("the machine’s");
  complaints.length = 0; // of the zone that was refused
  // An old name, which the browser does not offer, is a zone all the same.
  await zone.fill("Asia/Kolkata");
  await zone.press("Enter");
  await expect(zone).toHaveValue("Asia/Kolkata");
  await days.fill("");
  await days.press("Enter");
  await expect(days).toHaveValue("3");
  await zone.fill("america/new_york");
  await zone.press("Enter");
  await expect(toast(page, "Settings, time zone: Asia/Kolkata → America/New_York")).toBeVisible();
  await expect(setting(other, "zone").getByRole("combobox")).toHaveValue("America/New_York");
  expect(await history(tincup.url)).toEqual([
    "Settings, time zone: Asia/Kolkata → America/New_York",
    "Settings, time zone: machine → Asia/Kolkata",
    "Settings, start of the day: 04:00 → 00:00",
    "Settings, start of the day: 00:00 → 04:00",
    "Undone. Settings, single keys: on → off",
    "Settings, single keys: on → off",
    "Settings, look: system → dark",
  ]);
});

for (const [locale, timezoneId, says, today] of [
  ["en-GB", "Europe/Lisbon", "Europe/Lisbon, days before months, weeks from Monday", "Tue 24"],
  [
    "en-US",
    "America/New_York",
    "America/New_York, months before days, weeks from Sunday",
    "Tue 24",
  ],
  [
    "de-DE",
    "Pacific/Auckland",
    "Pacific/Auckland, days before months, weeks from Monday",
    "Wed 25",
  ],
] as const)
  test(`a first start takes zone and habits from the browser: ${locale}`, async ({ browser }) => {
    const tincup = await Tincup.bare("2026-11-24T15:00:00");
    const context = await browser.newContext({ locale, timezoneId });
    const page = await context.newPage();
    try {
      await visit(page, `${tincup.url}/today`);
      await expect(toast(page, `Taken from this browser: ${says}.`)).toBeVisible();
      await expect(page.getByRole("navigation", { name: /^Rail/ })).toContainText(today);
      // Undone it stays so, and is not taken again.
      await toast(page, "Taken").getByRole("button", { name: "Undo" }).click();
      await expect(toast(page, "Undone. Settings")).toBeVisible();
      await page.reload();
      await page.waitForTimeout(800);
      expect(await history(tincup.url)).toHaveLength(2);
    } finally {
      await context.close();
      await tincup.end();
    }
  });

test("what an earlier version kept in the browser comes along", async ({ page }) => {
  const tincup = await Tincup.bare(morning);
  try {
    await page.addInitScript(() => {
      if (sessionStorage.getItem("planted")) return;
      sessionStorage.setItem("planted", "yes");
      localStorage.setItem("tincup-look", "dark");
      localStorage.setItem("tincup-single-keys", "off");
      localStorage.setItem("tincup-urgent-days", "5");
      sessionStorage.setItem("tincup-line-top", "Measure the bay");
    });
    await visit(page, `${tincup.url}/settings`);
    await expect(pressed(page, "look", "Dark")).toHaveAttribute("aria-pressed", "true");
    await expect(pressed(page, "singleKeys", "Off")).toHaveAttribute("aria-pressed", "true");
    await expect(setting(page, "urgentDays").getByRole("spinbutton")).toHaveValue("5");
    expect((await history(tincup.url))[0]).toContain("look: system → dark");
    await page.reload();
    await expect(pressed(page, "look", "Dark")).toHaveAttribute("aria-pressed", "true");
    const left = await page.evaluate(() =>
      Object.keys(localStorage).filter((k) => /^tincup-(look|single|urgent)/.test(k)),
    );
    expect(left).toEqual([]);
  } finally {
    await page.close();
    await tincup.end();
  }
});

test("the index holds the views that were chosen, in their order; rows may be close", async ({
  page,
  tincup,
}) => {
  await tincup.post("/api/todos", { title: "Frame", due: "2026-11-24" });
  await visit(page, `${tincup.url}/settings`);
  const entries = () =>
    page
      .getByRole("navigation", { name: "Index" })
      .locator('a[href="/today"], a[href="/overdue"], a[href="/ready"], a[href="/waiting"]')
      .allInnerTexts();
  const names = async () => (await entries()).map((e) => e.replace(/\s*\d+$/, ""));
  await expect.poll(names).toEqual(["Today", "Overdue", "Ready", "Waiting"]);
  // By keys: the focus stays on what moves it, so that it goes on up.
  await page.getByRole("button", { name: "Move Ready up" }).focus();
  await page.keyboard.press("Enter");
  await expect.poll(names).toEqual(["Today", "Ready", "Overdue", "Waiting"]);
  await page.keyboard.press("Enter");
  await expect.poll(names).toEqual(["Ready", "Today", "Overdue", "Waiting"]);
  await page.getByRole("checkbox", { name: "Waiting" }).focus();
  await page.keyboard.press("Space");
  await expect.poll(names).toEqual(["Ready", "Today", "Overdue"]);
  await expect(toast(page, "Settings, views in the index without waiting")).toBeVisible();
  await page.reload();
  await expect.poll(names).toEqual(["Ready", "Today", "Overdue"]);
  await setting(page, "views").getByRole("button", { name: "Set it back" }).click();
  await expect.poll(names).toEqual(["Today", "Overdue", "Ready", "Waiting"]);

  const height = async () => {
    await page.goto(`${tincup.url}/today`);
    return (await page.locator("main [data-todo]").boundingBox())!.height;
  };
  const roomy = await height();
  await page.goto(`${tincup.url}/settings`);
  await pressed(page, "rows", "Close").click();
  await expect(toast(page, "height of rows: roomy → close")).toBeVisible();
  expect(await height()).toBeLessThan(roomy - 6);
});

test("what the page takes for the defaults are the server's", async ({ tincup }) => {
  const res = await fetch(`${tincup.url}/api/settings`);
  const { settings } = (await res.json()) as { settings: { name: string; default: string }[] };
  expect(Object.fromEntries(settings.map((s) => [s.name, s.default]))).toEqual(defaultValues);
});

test("this browser opens with the page that was chosen for it, and no other does", async ({
  page,
  browser,
  demo,
}) => {
  await visit(page, `${demo.url}/settings`);
  await page.getByRole("combobox", { name: "Opens with" }).selectOption({ label: "Night Signals" });
  await visit(page, demo.url);
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Night Signals");
  const other = await (await browser.newContext()).newPage();
  await other.goto(demo.url);
  await expect(other.getByRole("heading", { level: 1 })).toHaveText("Today");
  // An address of elsewhere is not followed.
  await page.evaluate(() => {
    for (const key of Object.keys(localStorage))
      if (key.endsWith("opens-with")) localStorage.setItem(key, "//elsewhere.example/");
  });
  await visit(page, demo.url);
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Today");
});
