import type { Page } from "@playwright/test";
import { expect, index, row, test, toast, visit } from "./tincup";

/** The sentences of History, the newest first. */
const history = async (page: Page, url: string) => {
  const answer = await page.request.get(`${url}/api/history`);
  const { changes } = (await answer.json()) as { changes: { says: string }[] };
  return changes.map((c) => c.says);
};

/** Does something by its name, as the finder knows it. */
async function byName(page: Page, letters: string) {
  await page.keyboard.press("g");
  await expect(page.getByRole("combobox", { name: "Go to" })).toBeFocused();
  await page.keyboard.type(letters);
  await page.keyboard.press("Enter");
}

test("a project with headings and a deadline, from nothing to done, by keys alone", async ({
  page,
  tincup,
}) => {
  await tincup.post("/api/people", { name: "Ines" });
  await visit(page, `${tincup.url}/today`); // Tuesday 24 November
  await byName(page, "new list");
  await expect(page.getByRole("dialog", { name: "New list" })).toBeVisible();
  await page.keyboard.type("Night Signals");
  await page.keyboard.press("Enter");
  const line = page.getByRole("combobox", { name: "Put into Night Signals" });
  await expect(line).toBeFocused();
  await page.keyboard.press("Escape");

  // Two headings, and the due with what one will see then.
  for (const name of ["Loans", "Labels"]) {
    await byName(page, "new section");
    await expect(page.getByRole("dialog", { name: "New section" })).toBeVisible();
    await page.keyboard.type(name);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("heading", { name, exact: true })).toBeVisible();
  }
  await byName(page, "due, outcome");
  const dialog = page.getByRole("dialog", { name: "“Night Signals” as a project" });
  await expect(dialog.getByLabel("Due")).toBeFocused();
  await page.keyboard.type("Fri 11 Dec");
  await page.keyboard.press("Tab");
  await page.keyboard.type("The lamps hang.");
  await page.keyboard.press("Tab");
  await page.keyboard.type("Ines");
  await page.keyboard.press("Enter");
  await expect(dialog).toBeHidden();
  await expect(page.getByText("Then: The lamps hang.")).toBeVisible();
  await expect(page.locator("main .top")).toContainText("Due Fri 11 Dec 2026. Open,");

  // Each to-do put in stands under its heading, with Ines.
  for (const [section, said] of [
    ["Loans", "Sign the loans, by 4 Dec"],
    ["Labels", "Print labels, plan Thursday"],
  ] as const) {
    await page.getByRole("button", { name: `More for ${section}` }).focus();
    await page.keyboard.press("Enter");
    await page.keyboard.press("Enter"); // Put something in
    await expect(page.getByRole("combobox", { name: `Put into ${section}` })).toBeFocused();
    await page.keyboard.type(said);
    await page.keyboard.press("Enter");
    await expect(row(page, said.split(",")[0]!)).toContainText("ask Ines");
    await page.keyboard.press("Escape");
  }
  await page.keyboard.press("n");
  await page.keyboard.type("Thank the keepers, in Night Signals");
  await page.keyboard.press("Enter");
  await expect(toast(page, "In Night Signals, ask Ines")).toBeVisible();
  await page.keyboard.press("Escape");

  // It stands in Projects, and on its day in Upcoming, with its progress.
  await byName(page, "projects");
  const entry = page.getByRole("link", { name: "Night Signals list 0 of 3 due 11 Dec" });
  await expect(entry).toBeVisible();
  await byName(page, "upcoming");
  await expect(
    page.locator('main [data-horizon="2026-W50"], main [data-horizon="2026-12-11"]'),
  ).toContainText("Night Signals");
  await page.locator("main a.list").focus();
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/list\//);

  // The due moves by a week, and the dates with it if that is asked for.
  await byName(page, "due, outcome");
  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.type("Fri 18 Dec");
  await page.keyboard.press("Tab");
  await expect(dialog.getByLabel("Where the due moves")).toBeFocused();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Tab");
  await page.keyboard.press("Enter");
  await expect(toast(page, "and the dates of 2 to-dos are 7 days later")).toBeVisible();
  await expect(row(page, "Sign the loans")).toContainText("11 Dec");
  await expect(row(page, "Print labels")).toContainText("3 Dec");

  // Done but for one, which goes to the Cup as the list is finished.
  for (const title of ["Sign the loans", "Print labels"]) {
    await row(page, title).focus();
    await page.keyboard.press("Space");
    await expect(toast(page, `Done: “${title}”`)).toBeVisible();
  }
  await expect(page.locator("main .top")).toContainText("2 of 3 done");
  await byName(page, "finish");
  const finish = page.getByRole("dialog", { name: "Finish “Night Signals”?" });
  await expect(finish).toContainText("2 of 3 done. It is due 18 Dec.");
  await expect(finish.getByLabel("One to-do is still open")).toBeFocused();
  await page.keyboard.type("They go");
  await page.keyboard.press("Enter");
  await expect(page.locator("main .top")).toContainText("Archived: in no view but this.");
  await expect(index(page).getByRole("link", { name: "Night Signals" })).toHaveCount(0);
  const said = await history(page, tincup.url);
  expect(said[0]).toBe("Finished and archived: “Night Signals”, with 1 open to-do in the Cup");
  await visit(page, `${tincup.url}/cup`);
  await expect(row(page, "Thank the keepers")).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(row(page, "Thank the keepers")).toHaveCount(0);
  await expect(index(page).getByRole("link", { name: "Night Signals" })).toHaveCount(1);
});

test("a shelf has a page, which asks into which of its lists", async ({ page, demo }) => {
  await visit(page, `${demo.url}/today`);
  await index(page).getByRole("link", { name: "Home", exact: true }).click();
  await expect(page.locator("main h1")).toHaveText("Home");
  await expect(page.locator("main .head h2")).toHaveText(["Flat", "Allotment", "Errands"]);
  const line = page.getByRole("combobox", { name: "Put into Home" });
  await line.fill("Oil the gate, Saturday");
  await line.press("Enter");
  await expect(page.getByRole("menu", { name: "Into which list?" })).toContainText("Into which");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  const allotment = page.locator('main section[data-group="in-list"]').nth(1);
  await expect(allotment).toContainText("Oil the gate");
  await expect(line).toBeFocused();
  await expect(line).toHaveValue("");
  // A sentence that names its list is not asked again.
  await page.keyboard.type("Paint the door, in Flat\n"); // before its reading is there
  await expect(page.locator('main section[data-group="in-list"]').first()).toContainText(
    "Paint the door",
  );
  // Esc in the question leaves the words where they are.
  await line.fill("Air the mattress");
  await line.press("Enter");
  await page.keyboard.press("Escape");
  await expect(line).toHaveValue("Air the mattress");
  const said = await history(page, demo.url);
  expect(said.slice(0, 2)).toEqual(["Put in: “Paint the door”", "Put in: “Oil the gate”"]);
});

test("a to-do and a list are duplicated from their menus", async ({ page, demo, complaints }) => {
  await visit(page, `${demo.url}/today`);
  await index(page).getByRole("link", { name: "Grant report" }).click();
  await expect(page.locator("main .top")).toContainText("The funder has the report");
  const first = page.locator("main [data-todo]").first();
  const title = (await first.locator(".title").textContent())!
    .trim()
    .replace(/^Priority \w+\. /, "");
  await first.hover();
  await first.getByRole("button", { name: /^More for/ }).click();
  await page.getByRole("menuitem", { name: "Duplicate it" }).click();
  const alike = page
    .locator("main [data-todo] .title")
    .filter({ hasText: new RegExp(`${title}$`) });
  await expect(alike).toHaveCount(2);
  await page.locator("main .top .dots").click();
  await page.getByRole("menuitem", { name: "Duplicate it" }).click();
  await expect(page.locator("main h1")).toHaveText("Grant report (2)");
  await expect(page.locator("main .top")).toContainText("Due Wed 9 Dec 2026");
  await page.keyboard.press("Control+z");
  await expect(index(page).getByRole("link", { name: "Grant report (2)" })).toHaveCount(0);
  complaints.length = 0; // the list that is looked at has gone
});
