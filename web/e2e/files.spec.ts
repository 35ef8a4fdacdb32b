import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { expect, history, row, test, toast, visit } from "./tincup";

const calendar = [
  "BEGIN:VCALENDAR",
  "VERSION:2.0",
  "BEGIN:VTODO",
  "UID:lamps@harbour.example",
  "SUMMARY:Count the lamps",
  "DUE;VALUE=DATE:20261127",
  "CATEGORIES:calls",
  "END:VTODO",
  "BEGIN:VTODO",
  "UID:wicks@harbour.example",
  "SUMMARY:Trim the wicks",
  "RELATED-TO:lamps@harbour.example",
  "END:VTODO",
  "BEGIN:VTODO",
  "SUMMARY:Wrong",
  "RECURRENCE-ID:20261127",
  "END:VTODO",
  "END:VCALENDAR",
  "",
].join("\r\n");

/** Drops files on the middle of the page, each a name and a text. */
const dropAll = (page: Page, files: [string, string][]) =>
  page.evaluate((files) => {
    const data = new DataTransfer();
    for (const [name, text] of files) data.items.add(new File([text], name));
    for (const kind of ["dragover", "drop"])
      document
        .querySelector("main")!
        .dispatchEvent(
          new DragEvent(kind, { dataTransfer: data, bubbles: true, cancelable: true }),
        );
  }, files);
const drop = (page: Page, name: string, text: string) => dropAll(page, [[name, text]]);
const preview = (page: Page) => page.getByRole("dialog");
const rows = (page: Page) => preview(page).getByRole("listitem");

/** What saving from the menu of a sheet downloads. */
async function saved(page: Page, as: string) {
  await page
    .locator("main")
    .getByRole("button", { name: /^More for/ })
    .first()
    .click();
  await page.getByRole("menuitem", { name: "Save as a file…" }).click();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("menuitem", { name: as }).click(),
  ]);
  return { name: download.suggestedFilename(), text: readFileSync(await download.path(), "utf8") };
}

test("a dropped calendar is previewed, kept by Enter, changed by the next, and undone", async ({
  page,
  tincup,
}) => {
  await visit(page, `${tincup.url}/within-a-week`);
  await drop(page, "lamps.ics", calendar);
  await expect(preview(page)).toContainText("2 new, 1 left out");
  await expect(rows(page).first()).toContainText("Line 16: RECURRENCE-ID: one occurrence");
  await expect(preview(page).getByRole("button", { name: "Bring in 2 to-dos" })).toBeVisible();
  expect(await history(tincup.url)).toEqual([]);
  await page.keyboard.press("Enter");
  await expect(toast(page, "Brought in: 2 new")).toBeVisible();
  await expect(row(page, "Count the lamps")).toBeVisible();

  await drop(page, "lamps.ics", calendar);
  await expect(preview(page)).toContainText("2 the same, 1 left out");
  await expect(preview(page).getByRole("button", { name: "Nothing to bring in" })).toBeDisabled();
  await page.keyboard.press("Escape");
  await expect(preview(page)).toHaveCount(0);

  await drop(page, "lamps.ics", calendar.replace("20261127", "20261130"));
  await expect(rows(page).nth(1)).toContainText("due: Fri 27 → Mon 30");
  await preview(page).getByRole("button", { name: "Bring in 1 to-do" }).click();
  const heads = page.locator("main h2");
  await expect(heads.filter({ hasText: /Monday,? 30/ })).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(heads.filter({ hasText: /Friday,? 27/ })).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(row(page, "Count the lamps")).toHaveCount(0);
  expect((await history(tincup.url)).reverse()).toEqual([
    "Brought in: 2 new",
    "Brought in: 1 changed",
    "Undone. Brought in: 1 changed",
    "Undone. Brought in: 2 new",
  ]);
});

test("a dropped task list is read line by line, kept, undone; what it leaves out is named", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/upcoming`);
  const text = [
    "# Opening night",
    "",
    "Some words of the meeting.",
    "",
    "- [ ] Order the flowers, by Friday 4pm, in Night Signals, high",
    "  1. [ ] Ask what is in season",
    "  2. [x] Find the vases",
    "",
    "  > Nothing *white*.",
    "- [ ] Ring the bell, by 31 February",
    "- [ ] Email Tom by Friday about the candles",
    "",
  ].join("\n");
  await drop(page, "opening.md", text);
  await expect(preview(page)).toContainText("5 new, 1 left out");
  await expect(rows(page).first()).toContainText("Line 3: This is no item of a task list.");
  await expect(rows(page).filter({ hasText: "Ring the bell, by 31 February" })).toContainText(
    "The line stays as it is written.",
  );
  await expect(rows(page).filter({ hasText: "Order the flowers" })).toContainText("due Fri 27");
  const candles = rows(page).filter({ hasText: "about the candles" });
  await candles.getByRole("button", { name: "Due Fri 27 Nov 2026?" }).click();
  await expect(candles).toContainText("Email Tom about the candles");
  await expect(candles).toContainText("due Fri 27");
  await candles.getByRole("button", { name: "As it stands in the file" }).click();
  await expect(candles).toContainText("Email Tom by Friday");
  await candles.getByRole("button", { name: "Due Fri 27 Nov 2026?" }).click();
  await expect(candles).toContainText("due Fri 27");
  await page.keyboard.press("Enter");
  await expect(toast(page, "Brought in: 5 new")).toBeVisible();
  await expect(row(page, "Order the flowers")).toContainText("Night Signals");
  const cup = async () => (await fetch(`${demo.url}/api/export?format=markdown&list=cup`)).text();
  expect(await cup()).toContain(`- [ ] "Ring the bell, by 31 February"\n`);
  await toast(page, "Brought in: 5 new").getByRole("button", { name: "Undo" }).click();
  await expect(row(page, "Order the flowers")).toHaveCount(0);
  expect(await cup()).not.toContain("Ring the bell");
});

test("CSV goes into a list that is chosen, out again and back; what is no such file is said", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  await drop(page, "lamp.png", "no to-dos");
  await expect(toast(page, "“lamp.png” holds no to-dos")).toBeVisible();
  await drop(page, "lamps.csv", "nothing,of,ours\n1,2,3\n");
  await expect(preview(page).getByRole("alert")).toContainText(
    "Line 1: The first row names no column for the title",
  );
  await page.keyboard.press("Escape");
  await drop(page, "lamps.csv", "Task;Due Date;Labels\nCount the lamps;28/11/2026;calls quick\n");
  await expect(preview(page)).toContainText("1 new");
  await preview(page).getByLabel("Into").selectOption({ label: "Loans" });
  await preview(page).getByRole("button", { name: "Bring in 1 to-do" }).click();
  await expect(toast(page, "Brought in: “Count the lamps”")).toBeVisible();

  await page.goto(`${demo.url}/within-a-week`);
  await expect(row(page, "Count the lamps")).toBeVisible();
  const csv = await saved(page, "Save as CSV");
  expect(csv.name).toBe("within-a-week.csv");
  expect(csv.text).toContain("Count the lamps,Loans");
  await drop(page, csv.name, csv.text);
  await expect(preview(page)).toContainText(/^within-a-week\.csv\d+ the same/);
  await page.keyboard.press("Escape");

  // A list goes out whole, and a view as it is narrowed.
  await page
    .getByRole("link", { name: /^Loans/ })
    .first()
    .click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Loans");
  const list = await saved(page, "Save as iCalendar");
  expect(list.name).toBe("Loans.ics");
  expect(list.text).toContain("SUMMARY:Count the lamps");
  await page.goto(`${demo.url}/ready?priority=high`);
  await expect(page.locator("main [data-todo]").first()).toBeVisible();
  const narrowed = await saved(page, "Save as iCalendar");
  expect(narrowed.text.match(/^PRIORITY:1\r$/gm)?.length).toBe(
    narrowed.text.match(/^BEGIN:VTODO\r$/gm)?.length,
  );

  // What is chosen goes out, and nothing else.
  await page.goto(`${demo.url}/within-a-week`);
  await row(page, "Count the lamps").focus();
  await page.keyboard.press("x");
  await page.getByRole("button", { name: "Save as a file" }).click();
  const [chosen] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("menuitem", { name: "Save as Markdown" }).click(),
  ]);
  expect(chosen.suggestedFilename()).toBe("chosen.md");
  expect(readFileSync(await chosen.path(), "utf8")).toBe(
    "- [ ] Count the lamps #calls #quick, by 28 Nov 2026, in Loans\n\n<!--\nlist: Loans\n-->\n",
  );
});

test("columns of a table that nobody knows are named by hand once, and remembered", async ({
  page,
  tincup,
}) => {
  await visit(page, `${tincup.url}/upcoming`);
  const table = "Betreff;Fällig am;Farbe\nCount the lamps;28/11/2026;red\n";
  // Enter before the preview is there is of that preview, which has no title, and of no later one.
  let answer = () => {};
  const held = new Promise<void>((release) => (answer = release));
  await page.route(
    "**/api/import/look*",
    async (route) => {
      await held;
      await route.continue();
    },
    { times: 1 },
  );
  await drop(page, "lampen.csv", table);
  await expect(preview(page).getByRole("status")).toHaveText("Reading …");
  await page.keyboard.press("Enter");
  answer();
  const named = (head: string) => preview(page).getByLabel(`${head} is read as`);
  await expect(preview(page)).toContainText("3 columns, 3 of them not known");
  await expect(preview(page).getByRole("row", { name: /Betreff/ })).toContainText(
    "Count the lamps",
  );
  await expect(preview(page).getByRole("button", { name: "Nothing to bring in" })).toBeDisabled();
  await named("Betreff").focus();
  await named("Betreff").selectOption("title");
  await expect(preview(page)).toContainText("1 new");
  await expect(preview(page)).toContainText("3 columns, 2 of them not known");
  await expect(named("Betreff")).toBeFocused(); // the next Tab goes on from here
  await named("Fällig am").selectOption("due");
  await expect(rows(page).first()).toContainText("due Sat 28");
  await preview(page).getByRole("button", { name: "Bring in 1 to-do" }).click();
  await expect(row(page, "Count the lamps")).toBeVisible();
  expect((await history(tincup.url)).slice(0, 2)).toEqual([
    "Brought in: “Count the lamps”",
    "Settings, columns of CSV files “betreff” is title, “fällig am” is due",
  ]);
  await page.keyboard.press("Control+z");
  await expect(toast(page, "Undone. Brought in: “Count the lamps”")).toBeVisible();
  await page.reload();
  await drop(page, "lampen.csv", table.replace("Count", "Trim"));
  await expect(preview(page)).toContainText("3 columns, 1 of them not known");
  await expect(rows(page).first()).toContainText("Trim the lamps");
  await page.keyboard.press("Enter");
  await expect(row(page, "Trim the lamps")).toBeVisible();
});

test("a table is brought in by keys alone, its questions answered ahead of a slow line", async ({
  page,
  tincup,
}) => {
  await visit(page, `${tincup.url}/settings`);
  const other = await page.context().newPage();
  await other.goto(`${tincup.url}/cup`);
  await expect(other.getByRole("heading", { level: 1 })).toBeVisible();
  await page.bringToFront();
  const table =
    "Task;Deadline;Priority;Status\nCount the lamps;03/04/2027;1;\nTrim the wicks;05/06/2027;2;done\nOrder oil;07/08/2027;x9;\n";
  const asked = page.waitForEvent("filechooser");
  await page.getByRole("link", { name: "Files in and out" }).focus();
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/#files$/);
  await page.keyboard.press("Tab");
  await expect(page.getByRole("button", { name: "From files…" })).toBeFocused();
  await page.keyboard.press("Enter");
  await (
    await asked
  ).setFiles({ name: "lamps.csv", mimeType: "text/csv", buffer: Buffer.from(table) });
  await expect(preview(page)).toContainText("3 new, 1 value goes to the notes");
  await expect(rows(page).filter({ hasText: "Trim the wicks" })).toContainText("done");
  await page.route("**/api/import/look*", async (route) => {
    await new Promise((done) => setTimeout(done, 700));
    await route.continue();
  });
  for (const key of ["Tab", "Tab", "ArrowDown", "Tab", "ArrowDown", "Enter"])
    await page.keyboard.press(key);
  await expect(toast(page, "Brought in: 3 new")).toBeVisible();
  await expect(preview(page)).toHaveCount(0);
  await expect(page.getByRole("button", { name: "From files…" })).toBeFocused();
  const csv = await (await fetch(`${tincup.url}/api/export?format=csv`)).text();
  expect(csv).toMatch(/^Count the lamps,,,needs-action,,medium,,2027-03-04,/m);
  expect(csv).toMatch(/^Trim the wicks,,,completed,[^,]+,high,,2027-05-06,/m);
  expect(csv).toContain("Priority: x9");
  // The other window has them; the same file again looks like them.
  await expect(other.locator("main")).toContainText("Laid by");
  await page.locator("#files input[type=file]").setInputFiles({
    name: "lamps.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(table),
  });
  await expect(preview(page)).toContainText("Leave out the 3 that look like one you have");
  await page.keyboard.press("Escape");
  expect(await history(tincup.url)).toEqual([
    "Brought in: 3 new",
    "Settings, columns of CSV files “deadline” is due, month-first, “priority” is priority, 1-low",
  ]);
});

test("files come one after another; Enter is of the preview that is seen", async ({
  page,
  tincup,
  complaints,
}) => {
  await visit(page, `${tincup.url}/upcoming`);
  // What the preview is made of is late: keys typed ahead are its own, and no row's.
  await page.route(
    /assets\/ImportPreview-.*\.js$/,
    async (route) => {
      await new Promise((done) => setTimeout(done, 700));
      await route.continue();
    },
    { times: 1 },
  );
  await page.reload();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Upcoming");
  await drop(page, "first.md", "- [ ] Count the lamps tomorrow\n");
  await page.keyboard.type("gn d");
  await page.keyboard.press("Enter");
  await expect(row(page, "Count the lamps")).toBeVisible();
  await expect(preview(page)).toHaveCount(0);
  await expect(page).toHaveURL(/upcoming$/);

  await dropAll(page, [
    ["wicks.md", "- [ ] Trim the wicks tomorrow\n"],
    ["lamp.png", "no to-dos"],
    ["oil.md", "- [ ] Order oil tomorrow\n"],
  ]);
  await expect(toast(page, "“lamp.png” holds no to-dos")).toBeVisible();
  await expect(preview(page)).toContainText("After it comes oil.md.");
  await expect(preview(page)).toContainText("1 new");
  await preview(page).getByRole("button", { name: "Bring in 1 to-do" }).dblclick({ delay: 60 });
  await page.keyboard.press("Enter"); // one too many
  await expect(preview(page).getByRole("heading")).toHaveText("oil.md");
  await expect(preview(page)).toContainText("1 new");
  // A third waits its turn, and what is cancelled is not kept.
  await drop(page, "glass.md", "- [ ] Clean the glass tomorrow\n");
  await expect(preview(page)).toContainText("After it comes glass.md.");
  await page.keyboard.press("Escape");
  await expect(preview(page).getByRole("heading")).toHaveText("glass.md");
  await expect(preview(page)).toContainText("1 new");

  // The server goes and comes back: what could not be read is read then.
  await tincup.stop();
  await preview(page).getByLabel("Into").focus();
  await page.keyboard.press("Escape");
  await drop(page, "pane.md", "- [ ] Mend the pane tomorrow\n");
  await expect(preview(page).getByRole("alert")).toContainText("It is asked again");
  await tincup.launch();
  await expect(preview(page)).toContainText("1 new", { timeout: 20_000 });
  await page.keyboard.press("Enter");
  await expect(row(page, "Mend the pane")).toBeVisible();
  await expect(preview(page)).toHaveCount(0);
  complaints.length = 0; // of the server that was away
  expect(await history(tincup.url)).toEqual([
    "Brought in: “Mend the pane”",
    "Brought in: “Trim the wicks”",
    "Brought in: “Count the lamps”",
  ]);
});

test("what is brought in is told how far it is, and is stopped by Cancel before it is kept", async ({
  page,
  tincup,
  complaints,
}) => {
  await visit(page, `${tincup.url}/upcoming`);
  await page.route("**/api/import/progress", (route) =>
    route.request().method() === "GET"
      ? route.fulfill({ json: { stage: "working", done: 25, total: 100 } })
      : route.continue(),
  );
  // It is on its way for as long as this waits.
  let arrive = () => {};
  const arrived = new Promise<void>((done) => (arrive = done));
  await page.route("**/api/import?*", async (route) => {
    await arrived;
    await route.continue();
  });
  await drop(page, "lamps.md", "- [ ] Count the lamps tomorrow\n");
  await expect(preview(page)).toContainText("1 new");
  await page.keyboard.press("Enter");
  await expect(preview(page).getByRole("status")).toHaveText("Working out 25 of 100 …");
  await expect(preview(page).getByRole("progressbar")).toHaveJSProperty("position", 0.25);
  const stopped = page.waitForResponse((r) => r.request().method() === "DELETE");
  await preview(page).getByRole("button", { name: "Cancel" }).click();
  expect((await stopped).status()).toBe(204);
  arrive();
  await expect(toast(page, "It was stopped, and nothing was brought in.")).toBeVisible();
  expect(await history(tincup.url)).toEqual([]);
  expect(complaints.every((c) => c.includes("409"))).toBe(true);
  complaints.length = 0;

  // Once it is kept, Cancel is too late and says so.
  await page.unroute("**/api/import?*");
  await page.route("**/api/import?*", async (route) => {
    const answer = await route.fetch();
    await new Promise((done) => setTimeout(done, 600));
    await route.fulfill({ response: answer });
  });
  await drop(page, "lamps.md", "- [ ] Count the lamps tomorrow\n");
  await expect(preview(page)).toContainText("1 new");
  await page.keyboard.press("Enter");
  await expect(row(page, "Count the lamps")).toBeVisible(); // the stream tells of it first
  await page.keyboard.press("Escape");
  await expect(toast(page, "It is kept already. Undo takes it back.")).toBeVisible();
  await expect(toast(page, "Brought in: “Count the lamps”")).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(row(page, "Count the lamps")).toHaveCount(0);
  expect(complaints.every((c) => c.includes("409"))).toBe(true);
  complaints.length = 0;
});

/** What a view shows, row for row. */
async function shown(url: string, view: string, sorted: boolean) {
  const v = (await (await fetch(`${url}/api/views/${view}?limit=1000`)).json()) as {
    groups: { kind: string; rows: { todo: { id: string; title: string } }[] }[];
  };
  return v.groups.map((g) => {
    const rows = g.rows.map((r) => (sorted ? r.todo.title : `${r.todo.id} ${r.todo.title}`));
    return [g.kind, ...(sorted ? rows.sort() : rows)];
  });
}
const someViews = ["cup", "today", "overdue", "upcoming", "within-a-week", "waiting", "projects"];

test("everything of the demo goes out and into an empty start, which is the same", async ({
  page,
  demo,
  tincup,
  complaints,
}) => {
  await visit(page, `${demo.url}/settings#files`);
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Save everything" }).click(),
  ]);
  expect(download.suggestedFilename()).toBe("Tin Cup 2026-11-24.zip");
  const zip = {
    name: "all.zip",
    mimeType: "application/zip",
    buffer: readFileSync(await download.path()),
  };
  // Where something is already it does not go in, and says what would be right.
  await page.locator("#files input[type=file]").setInputFiles(zip);
  await expect(preview(page).getByRole("alert")).toContainText("goes into an empty one");
  expect(complaints.every((c) => c.includes("422"))).toBe(true);
  complaints.length = 0;

  await visit(page, `${tincup.url}/settings#files`);
  await page.locator("#files input[type=file]").setInputFiles(zip);
  await expect(preview(page)).toContainText("Everything of another installation");
  await expect(rows(page).filter({ hasText: "attached files" })).toContainText("2 attached files");
  await expect(preview(page).getByLabel("Into")).toHaveCount(0);
  await page.keyboard.press("Enter");
  await expect(toast(page, /Moved in: \d+ to-dos, \d+ lists/)).toBeVisible();
  for (const view of [...someViews, "done", "bin", "ready"])
    expect(await shown(tincup.url, view, false), view).toEqual(await shown(demo.url, view, false));
  const of = async (url: string, path: string) => {
    const text = await (await fetch(`${url}${path}`)).text();
    return JSON.parse(
      text
        .replaceAll(/"revision":\d+/g, '"revision":0')
        .replaceAll(/"inSight":\w+/g, '"inSight":0'),
    ) as Record<string, unknown>;
  };
  for (const path of ["/api/bell", "/api/places", "/api/settings"])
    expect(await of(tincup.url, path), path).toEqual(await of(demo.url, path));
  // What rings next rings in both.
  const ringing = async (url: string) =>
    ((await of(url, "/api/bell")) as { open: { title: string }[] }).open.map((r) => r.title);
  for (const t of [demo, tincup]) t.setClock("2026-11-24T09:12:00");
  for (const t of [demo, tincup]) await expect.poll(() => ringing(t.url)).not.toEqual([]);
  expect(await ringing(tincup.url)).toEqual(await ringing(demo.url));
  await toast(page, /Moved in/)
    .getByRole("button", { name: "Undo" })
    .click();
  await expect(toast(page, /Undone. Moved in/)).toBeVisible();
  expect((await shown(tincup.url, "cup", false)).flatMap(([, ...left]) => left)).toEqual([]);
});

test("the demo goes out and into an empty start, and its views are the same", async ({
  browser,
  demo,
  tincup,
}) => {
  const file = await (await fetch(`${demo.url}/api/export?format=ics`)).text();
  const page = await browser.newPage();
  await page.goto(`${tincup.url}/settings#files`);
  await page.locator("#files input[type=file]").setInputFiles({
    name: "everything.ics",
    mimeType: "text/calendar",
    buffer: Buffer.from(file),
  });
  await preview(page)
    .getByRole("button", { name: /^Bring in \d+ to-dos/ })
    .click();
  await expect(toast(page, /Brought in: \d+ new, and made: \d+ lists/)).toBeVisible();
  // Rows of several lists that are alike have no order of their own that goes out with them.
  for (const view of someViews)
    expect(await shown(tincup.url, view, true), view).toEqual(await shown(demo.url, view, true));
  await page.close();
});

test("a table that can be read two ways asks once; what is left out goes into a file, what is there already is left", async ({
  page,
  tincup,
}) => {
  const table =
    "Task;Deadline;Prio\r\nOil the hinge;03/04/2027;1\r\nWipe;05/06/2027;2\r\n;07/08/2027;3\r\n";
  await visit(page, `${tincup.url}/cup`);
  await drop(page, "house.csv", table);
  const dates = preview(page).getByRole("group", { name: "Dates in this file have" });
  await expect(dates).toContainText("03/04/2027 is Sat 3 Apr 2027");
  await expect(rows(page).nth(1)).toContainText("3 Apr 2027");
  await dates.getByRole("radio", { name: /the month first/ }).check();
  await expect(rows(page).nth(1)).toContainText("4 Mar 2027");
  const numbers = preview(page).getByRole("group", { name: "Of the numbers in “Prio”" });
  await numbers.getByRole("radio", { name: /the largest is high/ }).check();
  await expect(numbers.getByRole("radio", { name: /the largest is high/ })).toBeChecked();
  await expect(dates.getByRole("radio", { name: /the month first/ })).toBeChecked();
  const [left] = await Promise.all([
    page.waitForEvent("download"),
    preview(page).getByRole("button", { name: "Export what is left out" }).click(),
  ]);
  expect(left.suggestedFilename()).toBe("left out of house.csv");
  expect(readFileSync(await left.path(), "utf8")).toBe("Task;Deadline;Prio\r\n;07/08/2027;3\r\n");
  await preview(page).getByRole("button", { name: "Bring in 2 to-dos" }).click();
  await expect(toast(page, "Brought in: 2 new")).toBeVisible();
  const cup = await (await fetch(`${tincup.url}/api/views/cup`)).text();
  expect(cup).toContain('"due":"2027-03-04"');
  expect(cup).toContain('"due":"2027-05-06"');

  // The next file with these heads is read as that one was, and its rows look like those there.
  await drop(page, "house.csv", table);
  await expect(rows(page).nth(1)).toContainText("looks like one you have");
  await preview(page)
    .getByRole("checkbox", { name: "Leave out the 2 that look like one you have" })
    .check();
  await expect(preview(page).getByRole("button", { name: "Nothing to bring in" })).toBeDisabled();
  await page.keyboard.press("Escape");
  await expect(preview(page)).toHaveCount(0);
  expect((await history(tincup.url)).slice(0, 1)).toEqual(["Brought in: 2 new"]);
});
