import { type Page } from "@playwright/test";
import { expect, group, index, row, slip, test, toast, visit } from "./tincup";

const editor = (page: Page) => page.getByRole("dialog", { name: "How it repeats" });
const ticked = (page: Page) =>
  page
    .locator(".toast")
    .filter({ hasText: /^\s*Done: “Meter reading, store room”. Next: Tue 8 Dec 2026/ });
const dates = (page: Page) =>
  editor(page).getByRole("list", { name: "Next dates" }).getByRole("listitem");

test("ticking a repeat says the next date, and undo brings it back", async ({ page, demo }) => {
  await visit(page, `${demo.url}/today`);
  const meter = row(page, "Meter reading");
  await expect(meter).toContainText("every 2 weeks");
  await meter.getByRole("checkbox").click();
  await expect(meter).toHaveClass(/struck/);
  await expect(ticked(page)).toBeVisible();
  await page.mouse.move(0, 0);
  await expect(meter).toHaveCount(0);
  await ticked(page).getByRole("button", { name: "Undo" }).click();
  await expect(meter).not.toHaveClass(/struck/);
  await expect(group(page, "due-today")).toContainText("Meter reading");

  // The tick taken back at the row itself, while it is still struck.
  await meter.getByRole("checkbox").click();
  await expect(ticked(page)).toBeVisible();
  await meter.getByRole("checkbox").click();
  await expect(meter).not.toHaveClass(/struck/);
  await page.reload();
  await expect(group(page, "due-today")).toContainText("Meter reading");

  // Done shows the record, the slip the history.
  await meter.getByRole("checkbox").click();
  await expect(ticked(page)).toBeVisible();
  await index(page).getByRole("link", { name: "Done" }).click();
  await row(page, "Meter reading").click();
  await expect(slip(page)).toContainText("To the repeat this is a record of");
  await slip(page)
    .getByRole("button", { name: /To the repeat/ })
    .click();
  await expect(slip(page)).toContainText("Last done today, 1 time in all");
  await expect(slip(page)).toContainText("Done before");
});

test("the editor's sentence and five dates change with the rule", async ({
  page,
  demo,
  complaints,
}) => {
  await visit(page, `${demo.url}/today`);
  await page.waitForTimeout(800);
  await row(page, "Invoice for the lamp transport").focus();
  await page.keyboard.press("r");
  await expect(dates(page)).toHaveCount(5);
  await expect(editor(page)).toContainText("Repeats every week.");
  await expect(dates(page).nth(1)).toHaveText("Tue 1 Dec 2026");
  await editor(page).getByRole("button", { name: "Monday" }).click();
  await editor(page).getByRole("button", { name: "Thursday" }).click();
  await expect(editor(page)).toContainText("Repeats every Monday and Thursday.");
  await expect(dates(page)).toHaveText([
    "Thu 26 Nov 2026",
    "Mon 30 Nov 2026",
    "Thu 3 Dec 2026",
    "Mon 7 Dec 2026",
    "Thu 10 Dec 2026",
  ]);
  await editor(page).getByLabel("Unit").selectOption("MONTHLY");
  await editor(page).getByLabel("Day of the month").fill("31");
  await expect(editor(page)).toContainText("on the 31st, or the last day of a shorter month");
  await expect(dates(page)).toHaveText([
    "Mon 30 Nov 2026",
    "Thu 31 Dec 2026",
    "Sun 31 Jan 2027",
    "Sun 28 Feb 2027",
    "Wed 31 Mar 2027",
  ]);
  await editor(page).getByLabel("Which day").selectOption("weekday");
  await editor(page).getByLabel("Which one").selectOption("-1");
  await editor(page).getByLabel("Weekday").selectOption("FR");
  await editor(page).getByLabel("Ends").selectOption("count");
  await editor(page).getByLabel("Times").fill("3");
  await expect(editor(page)).toContainText("Repeats every month on the last Friday, 3 times.");
  await expect(dates(page)).toHaveText(["Fri 27 Nov 2026", "Fri 25 Dec 2026", "Fri 29 Jan 2027"]);
  await editor(page).getByLabel("From", { exact: true }).fill("next week");
  await page.keyboard.press("Enter");
  await expect(dates(page).first()).toHaveText("Fri 25 Dec 2026");
  // What cannot be says so, and is not kept.
  await editor(page).getByLabel("Ends").selectOption("until");
  await editor(page).getByLabel("Until").fill("3 Jan 2020");
  await page.keyboard.press("Enter");
  await expect(editor(page)).toContainText("It ends before its first date.");
  await expect(editor(page).getByRole("button", { name: "Let it repeat" })).toBeDisabled();
  await editor(page).getByLabel("Ends").selectOption("count");
  await editor(page).getByLabel("Counted from").selectOption("completion");
  await expect(editor(page)).toContainText("1 month after done, 3 times");
  await editor(page).getByLabel("Counted from").selectOption("schedule");
  await editor(page).getByLabel("Days ahead").fill("7");
  await expect(editor(page)).toContainText("7 days ahead");
  await editor(page).getByRole("button", { name: "Let it repeat" }).click();
  await expect(toast(page, "Next: Fri 25 Dec 2026")).toBeVisible();
  await expect(group(page, "due-today")).not.toContainText("Invoice for the lamp transport");
  complaints.length = 0; // the browser notes each refusal
});

test("skip, pause and go on, postpone one, and all coming ones", async ({ page, demo }) => {
  await visit(page, `${demo.url}/today`);
  await page.waitForTimeout(800);
  await row(page, "Meter reading").click();
  await slip(page).getByRole("button", { name: "Skip this one" }).click();
  await expect(
    toast(page, "Skipped: “Meter reading, store room”. Next: Tue 8 Dec 2026"),
  ).toBeVisible();
  await page.keyboard.press("r");
  await editor(page).getByRole("button", { name: "Pause" }).click();
  await expect(slip(page)).toContainText("Every 2 weeks, paused");
  await index(page).getByRole("link", { name: "Store room" }).click();
  await group(page, "paused")
    .getByRole("button", { name: /Paused/ })
    .click();
  await expect(group(page, "paused")).toContainText("Meter reading");
  await row(page, "Meter reading").focus();
  await page.keyboard.press("r");
  await editor(page).getByRole("button", { name: "Go on" }).click();
  await expect(
    toast(page, "Goes on: “Meter reading, store room”. Next: Tue 8 Dec 2026"),
  ).toBeVisible();
  await row(page, "Meter reading").focus();
  await page.keyboard.press("d");
  await page.getByRole("textbox", { name: "Say when" }).fill("10 Dec");
  await page.keyboard.press("Enter");
  const moved = toast(page, "The next one stays Tue 22 Dec 2026");
  await expect(moved).toBeVisible();
  await moved.getByRole("button", { name: "All coming ones" }).click();
  await expect(
    toast(page, "Repeats every 2 weeks: “Meter reading, store room”. Next: Thu 10 Dec 2026"),
  ).toBeVisible();
  await index(page).getByRole("link", { name: "Upcoming" }).click();
  await expect(page.locator('[data-horizon="2026-W50"]')).toContainText("Meter reading");
  // Water the seedlings, due on Friday, comes round every three days after it.
  await expect(page.locator('[data-horizon="2026-11-30"]')).toContainText("comes round: 1");
});

test("subtasks in a slip: ticked, added, counted, and kept by a record", async ({ page, demo }) => {
  await visit(page, `${demo.url}/today`);
  await row(page, "Send loan agreement").click();
  await expect(slip(page)).toContainText("1 of 3, 33 %");
  // The chooser of people begins at the one there is: Enter alone changes nothing.
  await page.waitForTimeout(800);
  await slip(page).getByRole("button", { name: "For Registrar" }).click();
  await expect(page.getByRole("combobox", { name: "Person" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("combobox", { name: "Person" })).toBeHidden();
  await slip(page).getByRole("button", { name: "For Registrar" }).click();
  await page.getByRole("button", { name: "Waiting on", exact: true }).click();
  await expect(slip(page).getByRole("button", { name: "Waiting on Registrar" })).toBeVisible();
  await slip(page).getByRole("checkbox", { name: "Tick: Sign and scan" }).click();
  await expect(slip(page)).toContainText("2 of 3, 66 %");
  await slip(page).getByRole("combobox", { name: "Add a subtask" }).fill("Post it");
  await page.keyboard.press("Enter");
  await expect(slip(page)).toContainText("2 of 4, 50 %");
  await page.waitForTimeout(4500); // longer than a ticked row lingers
  await expect(
    slip(page).getByRole("checkbox", { name: "Open again: Sign and scan" }),
  ).toBeVisible();

  await row(page, "Meter reading").click();
  await slip(page).getByRole("combobox", { name: "Add a subtask" }).fill("Find the key");
  await page.keyboard.press("Enter");
  await slip(page).getByRole("checkbox", { name: "Tick: Find the key" }).click();
  await expect(slip(page)).toContainText("1 of 1, 100 %");
  await slip(page).getByRole("checkbox", { name: "Tick", exact: true }).click();
  await expect(slip(page)).toContainText("0 of 1, 0 %");
  await slip(page)
    .getByRole("button", { name: /Tue 24 Nov 2026/ })
    .last()
    .click();
  await expect(slip(page)).toContainText("1 of 1, 100 %");
  await expect(slip(page)).toContainText("To the repeat this is a record of");
});
