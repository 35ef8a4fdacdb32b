import { expect, history, latest, slip, test, toast, visit } from "./tincup";

test("a weekly review from first step to last, with a reload in the middle and an undo", async ({
  page,
  demo,
}) => {
  const start = await latest(demo.url);
  await visit(page, `${demo.url}/review`);
  await expect(page.getByRole("link", { name: /Weekly review .*not done yet/ })).toBeVisible();
  await page.getByRole("link", { name: /Weekly review/ }).click();
  const card = page.locator(".card");
  const step = page.locator(".step[aria-current]");
  const title = () => card.locator("h2").innerText();
  await expect(step).toHaveAccessibleName(/In the Cup: \d+ left/);

  // A chooser: no key of it reaches the page, and what it chose decides.
  const first = await title();
  await page.keyboard.type("l");
  await expect(page.locator("[data-layer=list]")).toBeVisible();
  await page.keyboard.type("vol");
  await page.keyboard.press("Enter");
  await expect(card.locator("h2")).not.toHaveText(first);
  expect((await history(demo.url))[0]).toContain(`“${first}”`);
  expect(await latest(demo.url)).toBe(start + 1);

  // Keys typed ahead of the answers: each is for the to-do that stood there. What is read of
  // the walk comes so late that the tick is undone before it was seen.
  let late = true;
  await page.route("**/api/review/weekly?**", async (route) => {
    if (late) await page.waitForTimeout(800);
    await route.continue();
  });
  const second = await title();
  await page.keyboard.press("8");
  const third = await title();
  await page.keyboard.press(" ");
  expect(third).not.toBe(second);
  await expect
    .poll(async () => (await history(demo.url)).slice(0, 2))
    .toEqual([
      expect.stringContaining(`Done: “${third}”`),
      expect.stringContaining(`Planned for week 48 of 2026: “${second.slice(0, 30)}`),
    ]);
  // What is undone is asked about again.
  await page.keyboard.press("ControlOrMeta+z");
  await expect(card.locator("h2")).toHaveText(third);
  late = false;
  await page.keyboard.press(".");
  await expect(card.locator("h2")).not.toHaveText(third);

  // A reload in the middle goes on where it was.
  const now = await title();
  const decided = await page.locator(".told").innerText();
  await page.reload();
  await expect(card.locator("h2")).toHaveText(now);
  expect((await page.locator(".told").innerText()).split(".")[0]).toBe(decided.split(".")[0]);
  // Its slip opens, and closes again without an act.
  const before = await latest(demo.url);
  await page.keyboard.press("Enter");
  await expect(slip(page)).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(slip(page)).toBeHidden();
  expect(await latest(demo.url)).toBe(before);

  // Another step first, and back; a project gets its next action.
  await page.getByRole("button", { name: /^Standing still: / }).click();
  await expect(step).toHaveAccessibleName(/Standing still/);
  await page.keyboard.press("i");
  await page.keyboard.type("Ask the joiner for a date, by Friday");
  await page.keyboard.press("Enter");
  await expect(toast(page, "Ask the joiner for a date").first()).toBeVisible();

  // All the rest is left as it is, by one key.
  for (let i = 0; i < 120 && (await card.count()); i++) await page.keyboard.press(".");
  await expect(page.getByText("That is all of it.")).toBeVisible();
  await expect(page.locator(".told")).toContainText("1 planned");
  await expect(page.locator(".told")).toContainText("1 given a next action");
  await page.getByRole("button", { name: "Finish the review" }).click();
  await expect(toast(page, /^Weekly review done: \d+ decided in \d+ min/)).toBeVisible();
  await expect(page.getByRole("link", { name: /Weekly review .*done today/ })).toBeVisible();
  await expect(
    page.getByRole("navigation", { name: "Index" }).getByRole("link", { name: "Review" }),
  ).toContainText("today");
  await page.keyboard.press("ControlOrMeta+z");
  await expect(page.getByRole("link", { name: /Weekly review .*not done yet/ })).toBeVisible();
});

test("a weekly review by keys alone, from a fresh load to its end", async ({ page, demo }) => {
  const start = await latest(demo.url);
  await visit(page, `${demo.url}/today`);
  const press = async (...keys: string[]) => {
    for (const key of keys) await page.keyboard.press(key);
  };
  // By the finder; or by arrows from the page of reviews.
  await press("g");
  await expect(page.getByRole("combobox", { name: "Go to" })).toBeFocused();
  await page.keyboard.type("review");
  await press("Enter");
  await expect(page.getByRole("heading", { level: 1, name: "Review" })).toBeVisible();
  await press("j", "j");
  await expect(page.getByRole("link", { name: /Weekly review/ })).toBeFocused();
  await press("Enter");
  const card = page.locator(".card");
  const step = page.locator(".step[aria-current]");
  const title = () => card.locator("h2").innerText();
  await expect(step).toHaveAccessibleName(/In the Cup/);

  // Esc closes a chooser and nothing more, and the next key is the card's again.
  const first = await title();
  await press("d");
  await expect(page.locator("[data-layer]").first()).toBeVisible();
  await press("Escape");
  await expect(page.locator("[data-layer]")).toHaveCount(0);
  expect(await title()).toBe(first);
  await press("9");
  await expect(card.locator("h2")).not.toHaveText(first);
  expect((await history(demo.url))[0]).toContain(`“${first}”`);

  // Each step in turn; the months plan for a month and for a day.
  const seen = new Set<string>();
  const name = async () => ((await step.getAttribute("aria-label")) ?? "").split(":")[0]!;
  for (let now = await name(); !seen.has(now); now = await name()) {
    seen.add(now);
    const asked = await title();
    if (now === "This month") {
      await press("o");
      await expect(page.getByRole("dialog", { name: "Choose the plan" })).toBeVisible();
      await page.keyboard.type("Thursday");
      await press("Enter");
      await expect(card.locator("h2")).not.toHaveText(asked);
      expect((await history(demo.url))[0]).toContain("Planned for Thu 26 Nov 2026");
    } else if (now === "Next month") {
      await press("m");
      await expect(card.locator("h2")).not.toHaveText(asked);
      await expect
        .poll(async () => (await history(demo.url))[0])
        .toContain("Planned for November 2026");
    }
    if ((await name()) === now) await press(">");
  }
  expect(seen.size).toBeGreaterThanOrEqual(6);
  // Whatever is left is left as it is.
  for (let i = 0; i < 160 && (await card.count()); i++) await press(".");
  await expect(page.getByText("That is all of it.")).toBeVisible();
  expect(await latest(demo.url)).toBe(start + 3);
  await press("Enter");
  await expect(toast(page, /^Weekly review done: \d+ decided/)).toBeVisible();
  await expect(page.getByRole("link", { name: /Weekly review .*done today/ })).toBeVisible();
});

test("the daily walk ends with the handful; what the server does not take is asked about next", async ({
  page,
  demo,
  complaints,
}) => {
  await visit(page, `${demo.url}/review/daily`);
  const card = page.locator(".card h2");
  // What comes into a step that is through waits: the to-do before the eyes stays there.
  const cup = page.getByRole("button", { name: /^In the Cup: / });
  for (let i = 0; i < 20 && (await cup.getAttribute("aria-current")); i++)
    await page.keyboard.press(".");
  await expect(cup).toHaveAccessibleName("In the Cup: 0 left");
  const before = await card.innerText();
  await demo.post("/api/todos", { title: "Call the glazier" });
  await expect(cup).toHaveAccessibleName("In the Cup: 1 left");
  await expect(card).toHaveText(before);
  await page.getByRole("button", { name: /^The day: / }).click();
  await expect(page.locator(".holds")).toContainText("of work");
  // Five fill it; the sixth is refused, and asked about again.
  const full = page.locator(".toast").filter({ hasText: /handful.*full|five/i });
  for (let i = 0; i < 6 && !(await full.count()); i++) {
    await page.keyboard.press("h");
    await page.waitForTimeout(300);
  }
  await expect(full.first()).toBeVisible();
  const then = page.getByRole("complementary", { name: "The rest of this step" });
  complaints.length = 0; // of the one that was refused
  const asked = await card.innerText();
  await page.route("**/plan", (r) => r.abort());
  await page.keyboard.press("9");
  await expect(toast(page, "away").last()).toBeVisible();
  // Another has taken its place, and stays: the next key is for what the eye is on.
  await expect(then.getByRole("listitem").filter({ hasText: asked })).toHaveCount(1);
  await expect(card).not.toHaveText(asked);
  complaints.length = 0;
});

test("four weeks gone by stand in Done as a picture, and as a table with the same numbers", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/done`);
  const past = page.getByRole("region", { name: "The last four weeks" });
  const picture = past.getByRole("img");
  await expect(picture).toHaveAccessibleName(/^Four weeks: .* done, .* planned/);
  const titles = await picture.locator("title").allTextContents();
  expect(titles).toHaveLength(28);
  const today = /(Tue 24 Nov): (.*) planned, (.*) done in (\d+)/.exec(
    titles.at(-1)!.replaceAll(/\s+/g, " "),
  )!;
  await past.getByRole("button", { name: "As a table" }).click();
  const row = past.getByRole("row").nth(1);
  await expect(row.getByRole("rowheader")).toHaveText(today[1]!);
  await expect(row.getByRole("cell")).toHaveText([today[2]!, today[3]!, today[4]!]);
  // It follows what is done.
  const { id } = await demo.post("/api/todos", { title: "Oil the shutter", estimate: 90 });
  await demo.post(`/api/todos/${id}/complete`, {});
  await expect(row.getByRole("cell").last()).toHaveText(String(Number(today[4]) + 1));
  await past.getByRole("button", { name: "As a picture" }).click();
  await expect(picture).toBeVisible();
});
