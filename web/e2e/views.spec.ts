import type { Page } from "@playwright/test";
import { expect, index, row, test, toast, visit } from "./tincup";

const titles = (page: Page) =>
  page
    .locator("main [data-todo] .title")
    .evaluateAll((all) =>
      all.map((t) => (t.textContent ?? "").replace(/^Priority \w+\. /, "").trim()),
    );
const total = (page: Page) => page.locator("form.builder footer .total");
const line = (page: Page, nth: string) =>
  page.getByRole("group", { name: `Line ${nth}`, exact: true });

/** Chooses an option of the select that has the focus, by its words. */
async function choose(page: Page, words: string) {
  await page.keyboard.type(words);
}

test("by keys alone: a view is built, saved, found in the index, and falls by a tick", async ({
  page,
  tincup,
}) => {
  const work = await tincup.post("/api/shelves", { name: "Work" });
  const home = await tincup.post("/api/shelves", { name: "Home" });
  const loans = await tincup.post("/api/lists", { name: "Loans", shelf: work.id });
  const flat = await tincup.post("/api/lists", { name: "Flat", shelf: home.id });
  const put = (title: string, list: string, due: string, tags: string[], more = {}) =>
    tincup.post("/api/todos", { title, list, due, tags, ...more });
  await put("Ring the insurer", loans.id, "2026-11-26", ["calls"]);
  await put("Ask about the crates", loans.id, "2026-12-01", ["ask"]);
  await put("Ring the registrar, later", loans.id, "2026-12-02", ["calls"]);
  await put("Write the letter", loans.id, "2026-11-25", ["letters"]);
  await put("Ring the plumber", flat.id, "2026-11-25", ["calls"]);
  await put("Weekly call", loans.id, "2026-11-25", ["calls"], { repeat: { rule: "FREQ=WEEKLY" } });
  await visit(page, `${tincup.url}/today`);
  await index(page).getByRole("link", { name: "New view" }).focus();
  await page.keyboard.press("Enter");

  // The name has the focus; everything else is a Tab away.
  await expect(page.getByLabel("Name")).toBeFocused();
  await page.keyboard.type("Calls and asks this week");
  await page.keyboard.press("Tab"); // how the lines go together
  await page.keyboard.press("Tab"); // line 1: what
  await page.keyboard.press("Tab"); // line 1: how
  await page.keyboard.press("Tab"); // line 1: its tags
  await page.keyboard.type("call");
  await page.keyboard.press("Enter");
  await expect(total(page)).toHaveText(/^4 match now/);
  await page.keyboard.type("ask");
  await page.keyboard.press("Enter");
  await expect(total(page)).toHaveText(/^5 match now/);
  // A second line: the new one has the focus.
  const addLine = async () => {
    await page.getByRole("button", { name: "Add a line" }).focus();
    await page.keyboard.press("Enter");
  };
  await addLine();
  await expect(page.getByLabel("Line 2: what")).toBeFocused();
  await choose(page, "due");
  await expect(line(page, "2")).toContainText("1 week");
  await expect(total(page)).toHaveText(/^4 match now/);
  await addLine();
  await choose(page, "repeating");
  await page.keyboard.press("Tab");
  await choose(page, "no");
  await expect(total(page)).toHaveText(/^3 match now/);
  await addLine();
  await choose(page, "shelf");
  await page.keyboard.press("Tab");
  await page.keyboard.press("Tab");
  await page.keyboard.type("wor");
  await page.keyboard.press("Enter");
  await expect(total(page)).toHaveText(/^2 match now/);
  await expect(page.locator("form.builder h1")).toHaveText(
    "Calls and asks this week: open, and tagged calls or ask, and due within the next 7 days, and not repeating, and on the shelf Work.",
  );
  await expect(page.getByLabel("What matches now").locator("li")).toHaveCount(2);
  await page.getByRole("button", { name: "Save view" }).focus();
  await page.keyboard.press("Enter");

  await expect(toast(page, "View saved")).toBeVisible();
  await expect.poll(() => titles(page)).toEqual(["Ring the insurer", "Ask about the crates"]);
  const entry = index(page).getByRole("link", { name: /Calls and asks this week/ });
  await expect(entry).toContainText("2");
  await row(page, "Ring the insurer").focus();
  await page.keyboard.press("Space");
  await expect(entry).toContainText("1");
  await row(page, "Ask about the crates").focus();
  await expect(row(page, "Ring the insurer")).toHaveCount(0);
  // Edited, and undone.
  await page.goto(`${page.url()}/edit`);
  await expect(page.getByLabel("Name")).toHaveValue("Calls and asks this week");
  await page.getByLabel("Name").fill("Asks this week");
  await page.keyboard.press("Enter");
  await expect(index(page).getByRole("link", { name: /Asks this week/ })).toBeVisible();
  await page.locator("main [data-todo]").first().focus();
  await page.keyboard.press("Control+z");
  await expect(entry).toBeVisible();
});

test("a contradiction is named on its lines before it can be saved, and mended", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/view/new`);
  await page.getByLabel("Name").fill("Calls");
  await page.getByLabel("Add a tag").fill("calls");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Add a line" }).click();
  await page.getByLabel("Line 2: how").selectOption({ label: "is none at all" });
  const verdict = page.locator(".verdict");
  await expect(verdict).toContainText("This view can never hold anything.");
  await expect(verdict).toContainText("“tagged calls” and “untagged” cannot both be true.");
  await expect(line(page, "1")).toHaveClass(/blamed/);
  await expect(line(page, "2")).toHaveClass(/blamed/);
  await expect(total(page)).toHaveText("0 match now, and 0 can ever");
  await expect(page.getByRole("button", { name: "Save view" })).toBeDisabled();
  await page.getByRole("button", { name: "Take that line out" }).click();
  await expect(verdict).toHaveCount(0);
  await expect(line(page, "2")).toHaveCount(0);
  await page.getByRole("button", { name: "Save view" }).click();
  await expect(page.locator("main h1")).toHaveText("Calls");
  // What is not saved yet is there again after going elsewhere.
  await page.goto(`${demo.url}/view/new`);
  await page.getByLabel("Name").fill("Half a thought");
  await page.getByLabel("Line 1: what").selectOption("overdue");
  await index(page).getByRole("link", { name: "Overdue" }).click();
  await expect(page.locator("main h1")).toHaveText("Overdue");
  await index(page).getByRole("link", { name: "New view" }).click();
  await expect(page.getByText("Taken up where you left it.")).toBeVisible();
  await expect(page.getByLabel("Name")).toHaveValue("Half a thought");
  await expect(total(page)).toHaveText(/^4 match now/);
  await page.getByRole("button", { name: "Begin anew" }).click();
  await expect(page.getByLabel("Name")).toHaveValue("");
  await expect(page.getByLabel("Line 1: what")).toHaveValue("tag");
  // A builder that follows another begins empty.
  await index(page)
    .getByRole("link", { name: /^Calls\s*\d*$/ })
    .click();
  await page.locator("main").getByRole("button", { name: "More for Calls" }).click();
  await page.getByRole("menuitem", { name: "Edit…" }).click();
  await expect(page.getByLabel("Name")).toHaveValue("Calls");
  await index(page).getByRole("link", { name: "New view" }).click();
  await expect(page.getByLabel("Name")).toHaveValue("");
  await index(page)
    .getByRole("link", { name: /^Calls\s*\d*$/ })
    .click();
  // A group within, and one of its lines by mouse.
  await page.locator("main").getByRole("button", { name: "More for Calls" }).click();
  await page.getByRole("menuitem", { name: "Edit…" }).click();
  await page.getByRole("button", { name: "Add a group" }).click();
  await page.getByLabel("Line 2.1: what").selectOption("priority");
  await line(page, "2.1").getByRole("button", { name: "high" }).click();
  await expect(page.locator("form.builder h1")).toContainText("of high priority");
});

test("search finds as one types; all that match are ticked at once, and undone", async ({
  page,
  tincup,
}) => {
  for (const [title, notes] of [
    ["Order lamp oil", ""],
    ["Lámparas, count them", ""],
    ["Ring the harbour", "They keep the signal lamp."],
    ["Write labels", ""],
  ] as const)
    await tincup.post("/api/todos", { title, notes });
  const gone = await tincup.post("/api/todos", { title: "Lamp, thrown away" });
  await tincup.post("/api/many", { ids: [gone.id], do: "delete" });
  await visit(page, `${tincup.url}/cup`);
  await page.keyboard.press("/");
  await expect(page.getByRole("searchbox", { name: "Search" })).toBeFocused();
  await page.keyboard.type("lamp");
  await expect(page.locator("main [data-todo]")).toHaveCount(4);
  await expect(row(page, "Ring the harbour").locator("mark")).toHaveText("lamp");
  await expect(page.locator("main .group").last()).toContainText("In the bin");
  await page.keyboard.type("ara");
  await expect.poll(() => titles(page)).toEqual(["Lámparas, count them"]);
  await page.getByRole("searchbox").fill('lamp -"lamp oil"');
  await expect(page.locator("main [data-todo]")).toHaveCount(3);
  await page.getByRole("searchbox").fill("lamp");
  await expect(page.locator("main [data-todo]")).toHaveCount(4);
  // All that is found, but for the bin, ticked by one key.
  await page.getByRole("button", { name: "Choose all 3" }).click(); // the bin left out
  await expect(page.getByRole("toolbar")).toContainText("3");
  await page.keyboard.press("Space");
  await expect(toast(page, "3 to-dos")).toBeVisible();
  await expect(page.locator("main .group").filter({ hasText: "Closed" })).toContainText(
    "Order lamp oil",
  );
  await page.keyboard.press("Control+z");
  await expect(page.locator("main .group").filter({ hasText: "Closed" })).toHaveCount(0);
  // What is found by a place or a tag is in the view that the search becomes.
  const swept = await tincup.post("/api/todos", { title: "Sweep", tags: ["by-the-lamps"] });
  await tincup.patch(`/api/todos/${swept.id}`, { place: "Lamp room" });
  await page.getByRole("searchbox").fill("lamp room");
  await expect(row(page, "Sweep").locator("mark")).toHaveText(["Lamp", "room"]);
  await page.getByRole("button", { name: "Save as a view…" }).click();
  await expect(page.locator("form.builder")).toContainText("1 matches now");
  await page.goBack();
  await page.getByRole("searchbox").fill("nothing of the sort");
  await expect(page.getByRole("status").filter({ hasText: "not even the bin" })).toBeVisible();
});

test("cards move between columns by dragging, by keys and by their menu, and change their field", async ({
  page,
  tincup,
}) => {
  for (const [title, priority] of [
    ["Frame", "high"],
    ["Hang", "medium"],
    ["Light", "none"],
  ])
    await tincup.post("/api/todos", { title, priority, due: "2026-11-24" });
  await visit(page, `${tincup.url}/today`);
  await page.getByRole("button", { name: "Shape" }).click();
  await page.getByRole("menuitemradio", { name: "Columns by priority" }).click();
  const column = (name: string) => page.locator(`[data-column="${name}"]`);
  await expect(column("high")).toContainText("Frame");
  await row(page, "Light").dragTo(column("low"));
  await expect(column("low")).toContainText("Light");
  await row(page, "Hang").focus();
  await page.keyboard.press("<");
  await expect(column("high")).toContainText("Hang");
  await page.keyboard.press(">");
  await expect(column("medium")).toContainText("Hang");
  await page.keyboard.press("ArrowRight");
  await expect(row(page, "Light")).toBeFocused();
  // A title is edited on its card, and what a card cannot do it says.
  await page.keyboard.type("e the hall\n");
  await expect(column("low")).toContainText("Light the hall");
  await expect(row(page, "Light the hall")).toBeFocused();
  await page.keyboard.press("e");
  await page.keyboard.press("Escape");
  await page.keyboard.press("b");
  await expect(toast(page, "Nothing is put in between cards")).toBeVisible();
  await page.keyboard.press("i");
  await expect(toast(page, "A card has no room for a subtask’s line")).toBeVisible();
  await page.keyboard.type("e");
  await page.keyboard.press("Control+a");
  await page.keyboard.type("Light\n");
  // And by the card's own list of things to do.
  await row(page, "Light").getByRole("button", { name: "More for Light" }).click();
  await expect(page.getByRole("menuitem")).toHaveText([
    "To “High priority”",
    "To “Medium priority”",
    "To “No priority”",
    "Choose",
    "Put in the bin",
  ]);
  await page.getByRole("menuitem", { name: "To “No priority”" }).click();
  await expect(column("none")).toContainText("Light");
  await page.keyboard.press("Control+z");
  await expect(column("low")).toContainText("Light");
  // The two-by-two asks which field is to change.
  await page.getByRole("button", { name: "Shape" }).click();
  await page.getByRole("menuitemradio", { name: /Two-by-two/ }).click();
  await expect(column("important-urgent")).toContainText("Frame");
  await page.getByRole("button", { name: "Put this message away" }).click();
  await expect(page.locator(".messages.room")).toHaveCount(0);
  await row(page, "Frame").dragTo(column("urgent"));
  const dialog = page.getByRole("dialog");
  await expect(dialog).toContainText("Priority");
  await dialog.getByRole("button", { name: "Change it" }).click();
  await expect(dialog).toHaveCount(0);
  await expect(column("urgent")).toContainText("Frame");
  await page.keyboard.press("Control+z");
  await expect(column("important-urgent")).toContainText("Frame");
  // How near is urgent is a setting.
  await tincup.post("/api/todos", { title: "In five days", priority: "high", due: "2026-11-29" });
  await page.goto(`${tincup.url}/within-a-week?shape=two-by-two`);
  await expect(column("important")).toContainText("In five days");
  await page.getByRole("button", { name: "Shape" }).click();
  await page.getByRole("menuitem", { name: "Urgent is within 3 days…" }).click();
  await page.getByLabel("Days from today").fill("5");
  await page.keyboard.press("Enter");
  await expect(column("important-urgent")).toContainText("In five days");
});

test("Today is narrowed by a tag, saved as seen, and widened again", async ({ page, demo }) => {
  await visit(page, `${demo.url}/today`);
  await expect(row(page, "Meter reading")).toBeVisible();
  const before = await page.locator("main [data-todo]").count();
  await page.keyboard.press("f");
  await page.getByRole("combobox", { name: "Narrow to" }).fill("calls");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await expect(page.locator("main [data-todo]")).toHaveCount(2);
  const word = page.getByRole("button", { name: "Take “tagged calls” away" });
  await expect(word).toBeVisible();
  await page.reload();
  await expect(page.locator("main [data-todo]")).toHaveCount(2);
  await page.getByRole("button", { name: "Save what I see…" }).click();
  await expect(page.getByLabel("Name")).toHaveValue("Today, tagged calls");
  await expect(total(page)).toHaveText(/^2 match now/);
  await page.goBack();
  await word.click();
  await expect(page.locator("main [data-todo]")).toHaveCount(before);
});

test("a change reaches an open view of another window as a patch", async ({ page, demo }) => {
  await visit(page, `${demo.url}/upcoming`);
  await row(page, "Order mount board").waitFor();
  const replies: { size: number; builds: boolean }[] = [];
  page.on("response", async (r) => {
    if (!r.url().includes("/api/views/upcoming")) return;
    const body = await r.text().catch(() => "");
    if (body) replies.push({ size: body.length, builds: body.includes('"builds"') });
  });
  const made = await demo.post("/api/todos", { title: "Brought by the tide", due: "2026-11-26" });
  await expect(row(page, "Brought by the tide")).toBeVisible();
  await demo.post(`/api/todos/${made.id}/plan`, { plan: "2026-11-27" });
  await expect(page.locator('[data-horizon="2026-11-26"]')).toContainText("Brought by the tide");
  await demo.post("/api/many", { ids: [made.id], do: "complete" });
  await expect(row(page, "Brought by the tide")).toHaveCount(0);
  await expect.poll(() => replies.length).toBeGreaterThan(2);
  console.log(`patches: ${replies.map((r) => r.size).join(", ")} bytes`);
  for (const r of replies) expect(r.builds).toBe(true);
  for (const r of replies) expect(r.size).toBeLessThan(9000);
});

test("a two-by-two counts truly: what is in sight and what it says is more are what its head says", async ({
  page,
  tincup,
}) => {
  const csv = ["title,priority", ...Array.from({ length: 252 }, (_, i) => `Crate ${i},high`)];
  await fetch(`${tincup.url}/api/import?name=crates.csv`, {
    method: "POST",
    headers: { "Content-Type": "application/octet-stream", "Idempotency-Key": "crates" },
    body: csv.join("\n"),
  });
  await visit(page, `${tincup.url}/cup?shape=two-by-two`);
  const quarter = page.locator('[data-column="important"]');
  await expect(quarter.locator(".count")).toContainText("252");
  const told = () =>
    quarter.evaluate((el) => {
      const ul = el.querySelector("ul")!;
      const edge = ul.getBoundingClientRect();
      const cards = [...ul.children].map((c) => c.getBoundingClientRect());
      const above = cards.filter((c) => c.bottom <= edge.bottom + 1).length;
      const more = Number(/\d+/.exec(el.querySelector(".rest")?.textContent ?? "")?.[0] ?? 0);
      const filled = cards.some((c) => c.bottom > edge.bottom - 8);
      return { sum: above + more, filled, several: above > 1 };
    });
  await expect.poll(told).toEqual({ sum: 252, filled: true, several: true });
  await quarter.getByRole("button", { name: /more$/ }).click();
  await expect.poll(async () => (await told()).sum).toBe(252);
});
