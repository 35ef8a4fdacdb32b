import { type Page } from "@playwright/test";
import { expect, history, latest, morning, row, slip, test, Tincup, toast, visit } from "./tincup";

const line = (page: Page, name: string | RegExp) => page.getByRole("combobox", { name });
const understood = (page: Page) => page.getByRole("list", { name: "Understood" });
const offers = (page: Page) => page.getByRole("list", { name: "Might mean" }).getByRole("button");
const given = (page: Page) => understood(page).locator("[data-given]");

test("an offer is taken in a list's line by Tab, in a row's line and a slip's by a press", async ({
  page,
  tincup,
}) => {
  const crates = await tincup.post("/api/lists", { name: "Crates" });
  const lamp = await tincup.post("/api/todos", { title: "Pack the lamp", list: crates.id });
  await visit(page, `${tincup.url}/list/${crates.id}`);
  await line(page, "Put into Crates").click();
  await expect(given(page)).toHaveText([/list Crates/]);
  await page.keyboard.type("Email Tomas by Friday about the boiler");
  await expect(offers(page)).toHaveText([/Fri 27 Nov 2026\?/]);
  await expect(page.locator("main .mirror .offer")).toHaveText("by Friday");
  await page.keyboard.press("Tab");
  await expect(line(page, "Put into Crates")).toHaveValue(
    "Email Tomas about the boiler, by Friday",
  );
  await page.keyboard.press("Enter");
  await expect(row(page, "Email Tomas about the boiler")).toContainText("Fri 27");
  await expect(line(page, "Put into Crates"), "free for the next one").toBeFocused();

  // Below a row, and inside it.
  await page.keyboard.press("Escape");
  await row(page, "Pack the lamp").focus();
  await page.keyboard.press("b");
  await page.keyboard.type("Measure the gate 2h");
  await offers(page).filter({ hasText: "2 h?" }).click();
  await expect(line(page, "Below Pack the lamp")).toHaveValue("Measure the gate, 2h");
  await page.keyboard.press("Enter");
  await expect(row(page, "Measure the gate")).toContainText("2 h");
  await page.keyboard.press("Escape");
  await row(page, "Pack the lamp").focus();
  await page.keyboard.press("i");
  await page.keyboard.type("Record 2h");
  await expect(offers(page)).toHaveText([/2 h\?/]);
  await page.keyboard.press("Tab");
  await page.keyboard.press("Enter");
  await expect(row(page, "Record")).toContainText("2 h");
  await page.keyboard.press("Escape");

  // In its slip.
  await visit(page, `${tincup.url}/list/${crates.id}?slip=${lamp.id}`);
  await slip(page).getByRole("combobox", { name: "Add a subtask" }).click();
  await page.keyboard.type("Find foam 30 min");
  await offers(page).click();
  await page.keyboard.press("Enter");
  await expect(slip(page).getByRole("button", { name: "Find foam" })).toBeVisible();
  expect(await history(tincup.url)).toEqual([
    "Put in: “Find foam”",
    "Put in: “Record”",
    "Put in: “Measure the gate”",
    "Put in: “Email Tomas about the boiler”",
    "Put in: “Pack the lamp”",
    "New list: “Crates”",
  ]);
  const found = await (await fetch(`${tincup.url}/api/search?q=foam`)).json();
  expect(found.groups[0].rows[0].todo).toMatchObject({ title: "Find foam", estimate: 30 });
});

test("a paste's lines have their offers: by Tab, by a press, set aside; each keeps its place", async ({
  page,
  tincup,
}) => {
  const crates = await tincup.post("/api/lists", { name: "Crates" });
  await tincup.post("/api/people", { name: "Ines" });
  await visit(page, `${tincup.url}/list/${crates.id}`);
  await line(page, "Put into Crates").click();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData(
      "text/plain",
      "- Email Tomas by Friday about it\r\n\t* Record 2h\n1. Friday drinks",
    );
    document.activeElement!.dispatchEvent(
      new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  const dialog = page.getByRole("dialog", { name: "Several at once" });
  const lines = dialog.getByRole("textbox", { name: "The lines" });
  const becomes = dialog.locator("li.line");
  await expect(becomes).toHaveCount(3);
  await expect(dialog.getByRole("combobox", { name: "Into" })).toHaveValue(crates.id);
  // Tab takes what is offered in the line of the caret.
  await lines.focus();
  await page.keyboard.press("Control+Home");
  await page.keyboard.press("Tab");
  await expect(lines).toHaveValue(
    "- Email Tomas about it, by Friday\n\t* Record 2h\n1. Friday drinks",
  );
  await expect(lines).toBeFocused();
  await expect(becomes.nth(0)).toContainText("Fri 27 Nov 2026");
  await becomes.nth(1).getByRole("button", { name: "2 h?" }).click();
  await expect(lines).toHaveValue(/\t\* Record, 2h\n1\. Friday drinks$/);
  await expect(becomes.nth(1)).toHaveAttribute("data-depth", "1");
  // A chip is taken away: its words stay words.
  await becomes.nth(1).getByRole("button", { name: "Leave “2h” as words" }).click();
  await expect(lines).toHaveValue(/\* Record, "2h"/);
  // Esc sets the offers of the line aside, and does not close; Tab then goes on.
  await page.keyboard.press("Control+End");
  await expect(becomes.nth(2).getByRole("button", { name: /Fri 27 Nov/ })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(becomes.nth(2).getByRole("button")).toHaveCount(0);
  await expect(dialog).toBeVisible();
  await page.keyboard.press("Tab");
  await expect(lines).not.toBeFocused();
  await dialog.getByRole("button", { name: "Put in 3 to-dos" }).click();
  await expect(toast(page, "Put in: 3 to-dos")).toBeVisible();
  await expect(row(page, "Email Tomas about it")).toContainText("Fri 27");
  await expect(row(page, "Record, 2h")).toHaveAttribute("aria-level", "2");
  await expect(row(page, "Friday drinks")).not.toContainText("Fri 27");
});

test("what is put in on the page of a tag, a person, a place and an own view stands in it", async ({
  page,
  tincup,
}) => {
  await tincup.post("/api/sentence/todos", { text: "Order glass, #suppliers" });
  const ines = await tincup.post("/api/people", { name: "Ines" });
  const store = await tincup.post("/api/places", { name: "The store" });
  const garden = await tincup.post("/api/lists", { name: "Garden" });
  const overview = await (await fetch(`${tincup.url}/api/overview`)).json();
  const test = (field: string, value: string) => ({ field, op: "any-of", values: [value] });
  const soon = await tincup.post("/api/own-views", {
    name: "Soon",
    definition: {
      filter: {
        all: [
          test("list", garden.id),
          test("priority", "high"),
          { field: "due", op: "within-next", days: 7 },
        ],
      },
    },
  });
  for (const [path, name, chips] of [
    [`/tag/${overview.tags[0].id}`, "suppliers", [/tag #suppliers/]],
    [`/person/${ines.id}`, "Ines", [/who ask Ines/]],
    [`/place/${store.id}`, "The store", [/where The store/]],
    ["/rail/2026-11-26", /Thursday 26/, [/plan Thu 26 Nov 2026/]],
  ] as const) {
    await visit(page, `${tincup.url}${path}`);
    const here = line(page, typeof name === "string" ? `Put into ${name}` : name);
    await here.click();
    await expect(given(page)).toHaveText([...chips]);
    const title = `Sort the post ${path.slice(1, 4)}`;
    await page.keyboard.type(title);
    await page.keyboard.press("Enter");
    await expect(row(page, title)).toBeVisible();
    await expect(toast(page, `Put in: “${title}”`)).toBeVisible();
    await page.waitForTimeout(800);
    await expect(toast(page, "In the Cup"), "it is seen here").toHaveCount(0);
  }

  // An own view gives what its lines fix; what it cannot fix, the sentence has to say.
  await visit(page, `${tincup.url}/view/${soon.id}`);
  const here = line(page, "Put into Soon");
  await here.click();
  await expect(given(page)).toHaveText([/list Garden/, /priority high/]);
  await page.keyboard.type("Sow the kale by Friday");
  await page.keyboard.press("Enter");
  await expect(row(page, "Sow the kale")).toBeVisible();
  await page.keyboard.type("Rake the path");
  await page.keyboard.press("Enter");
  await expect(toast(page, "Put in: “Rake the path”. In Garden")).toBeVisible();
  // A chip taken away is away for this one; the sentence's own word takes its place.
  await page.keyboard.type("Prune, low");
  await expect(given(page)).toHaveText([/list Garden/]);
  await understood(page).getByRole("button", { name: "Without list Garden" }).click();
  await expect(given(page)).toHaveCount(0);
  await expect(here).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(toast(page, "Put in: “Prune”. In the Cup")).toBeVisible();
  await expect(given(page)).toHaveText([/list Garden/, /priority high/]);
});

test("on an empty start the advice of Waiting, followed word for word, leads to a row in it", async ({
  page,
  tincup,
}) => {
  await visit(page, `${tincup.url}/waiting`);
  const advice = (await page.locator("main").innerText()).match(/Say “([^”]+)”/)![1]!;
  await page.keyboard.type(`n${advice}`);
  await page.keyboard.press("Tab");
  await page.keyboard.press("Enter");
  await expect(row(page, "Crate sizes")).toBeVisible();
  expect(await history(tincup.url)).toEqual(["Put in: “Crate sizes”, and made: the person “Ines”"]);
});

test("a key puts in exactly as typed; the last sentence comes back to be mended", async ({
  page,
  tincup,
}) => {
  await visit(page, `${tincup.url}/cup`);
  const top = line(page, "Put something in");
  await page.keyboard.type("nRead “Tomorrow” by Friday, high #calls");
  await page.keyboard.press("Alt+Enter");
  await expect(row(page, "Read “Tomorrow” by Friday, high #calls")).toBeVisible();
  await page.keyboard.type("Ring the framer, hihg");
  await page.keyboard.press("Enter");
  await expect(row(page, "Ring the framer")).toBeVisible();
  await page.keyboard.press("ArrowUp");
  await expect(top).toHaveValue("Ring the framer, hihg");
  // A line with words in it keeps them.
  await page.keyboard.press("ArrowUp");
  await expect(top).toHaveValue("Ring the framer, hihg");
  expect(await history(tincup.url)).toHaveLength(2);
});

test("nothing is read while an input method composes, and its Enter puts nothing in", async ({
  page,
  tincup,
}) => {
  await visit(page, `${tincup.url}/cup`);
  const before = await latest(tincup.url);
  let asked = 0;
  page.on("request", (r) => (asked += Number(r.url().endsWith("/api/sentence"))));
  const top = line(page, "Put something in");
  await top.focus();
  const keys = await page.context().newCDPSession(page);
  for (const text of ["か", "かい", "かいぎ"])
    await keys.send("Input.imeSetComposition", {
      text,
      selectionStart: text.length,
      selectionEnd: text.length,
    });
  await page.waitForTimeout(300);
  await expect(top).toHaveValue("かいぎ");
  expect(asked).toBe(0);
  // The input method's own Enter, Tab, arrows and Esc are its own.
  for (const key of ["Enter", "Tab", "ArrowUp", "Escape"])
    await top.evaluate((el, key) => {
      el.dispatchEvent(
        new KeyboardEvent("keydown", { key, isComposing: true, bubbles: true, cancelable: true }),
      );
    }, key);
  await expect(top).toBeFocused();
  await expect(top).toHaveValue("かいぎ");
  expect(await latest(tincup.url)).toBe(before);
  await keys.send("Input.insertText", { text: "会議 tomorrow" });
  await expect(page.locator('.panel .chip[data-field="due"]')).toContainText("Wed 25 Nov 2026");
  expect(asked).toBeGreaterThan(0);
  await page.keyboard.press("Enter");
  await expect(toast(page, "Put in: “会議”")).toBeVisible();
  expect((await history(tincup.url))[0]).toBe("Put in: “会議”");
});

test("a repeat is said in words, weekdays are one press, and a row shows all of its days", async ({
  page,
  tincup,
}) => {
  await tincup.post("/api/todos", { title: "Open the shutters", due: "2026-11-24" });
  await visit(page, `${tincup.url}/today`);
  const shutters = row(page, "Open the shutters");
  const editor = page.getByRole("dialog", { name: "How it repeats" });
  // Typed ahead: what is read stands below before Enter, with its dates.
  await shutters.focus();
  await page.keyboard.type("revery weekday at 8:45");
  await expect(editor.locator(".found")).toContainText(
    "every weekday, first Wed 25 Nov 2026, 08:45",
  );
  await expect(editor.getByRole("button", { name: "Weekdays" })).toHaveAttribute(
    "aria-pressed",
    "true",
  );
  await page.keyboard.press("Enter");
  await expect(toast(page, "Repeats every weekday: “Open the shutters”")).toBeVisible();
  await visit(page, `${tincup.url}/upcoming`);
  await expect(shutters).toContainText("every weekday");
  await shutters.focus();
  await page.keyboard.press("r");
  await editor.getByRole("button", { name: "Friday" }).click();
  await editor.getByRole("button", { name: "Change all coming ones" }).click();
  await expect(shutters).toContainText("every Mon to Thu");
  await shutters.focus();
  for (const [words, reads] of [
    ["first of the month", "every month on the 1st, first Tue 1 Dec 2026"],
    ["yearly 9 October", "every year, first Sat 9 Oct 2027"],
  ] as const) {
    await page.keyboard.type(`r${words}`);
    await expect(editor.locator(".found")).toContainText(reads);
    await page.keyboard.press("Escape");
    await expect(editor).toHaveCount(0);
    await shutters.focus();
  }
  await page.keyboard.type("rsoonish");
  await expect(editor).toContainText("“soonish” is not read as a repeat.");
  await page.keyboard.press("Enter");
  await expect(editor).toBeVisible();
  await page.keyboard.press("Escape");
  expect((await history(tincup.url)).length).toBe(3);
  // The time that was said is kept by the button too.
  await expect(editor).toHaveCount(0);
  await shutters.focus();
  await page.keyboard.type("revery Monday at 7:15");
  await expect(editor.locator(".found")).toContainText("07:15");
  await editor.getByRole("button", { name: "Change all coming ones" }).click();
  await expect(shutters).toContainText("07:15");
});

test("in a slip, lengths and reminders show their reading before Enter; who takes its role", async ({
  page,
  tincup,
}) => {
  await tincup.post("/api/people", { name: "Ines" });
  await visit(page, `${tincup.url}/cup`);
  await page.keyboard.type("nPack the lamp");
  await page.keyboard.press("Control+Enter");
  // The slip that opened has the focus.
  await expect(slip(page).getByRole("textbox", { name: "Title" })).toBeFocused();
  await slip(page).getByRole("button", { name: "Not estimated" }).click();
  await page.keyboard.type("1h30");
  await expect(slip(page).locator(".found")).toContainText("1 h 30");
  await page.keyboard.press("Enter");
  await expect(slip(page).getByRole("button", { name: "1 h 30" })).toBeVisible();
  await slip(page).getByRole("button", { name: "No reminder" }).click();
  await page.keyboard.type("tomorrow 9am");
  await expect(slip(page).locator(".found")).toContainText("Wed 25 Nov 2026, 09:00");
  await page.keyboard.press("Enter");
  await expect(slip(page)).toContainText("Wed 25 Nov 2026, 09:00");
  await slip(page).getByRole("button", { name: "Nobody" }).click();
  await page.keyboard.type("waiting on in");
  await expect(page.getByRole("listbox").getByRole("option").first()).toHaveText("Waiting on Ines");
  await page.keyboard.press("Enter");
  await expect(slip(page)).toContainText("Waiting on Ines");
  expect(await history(tincup.url)).toHaveLength(5);
});

test.describe("on a phone", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test("offers are tapped in a list's line, a subtask's line and a paste", async ({
    page,
    tincup,
  }) => {
    const crates = await tincup.post("/api/lists", { name: "Crates" });
    const lamp = await tincup.post("/api/todos", { title: "Pack the lamp", list: crates.id });
    await visit(page, `${tincup.url}/list/${crates.id}`);
    await line(page, "Put into Crates").tap();
    await page.keyboard.type("Email Tomas by Friday about it");
    await offers(page).tap();
    await expect(line(page, "Put into Crates")).toHaveValue("Email Tomas about it, by Friday");
    await page.keyboard.press("Enter");
    await expect(row(page, "Email Tomas about it")).toContainText("Fri 27");

    await visit(page, `${tincup.url}/list/${crates.id}?slip=${lamp.id}`);
    await slip(page).getByRole("combobox", { name: "Add a subtask" }).tap();
    await page.keyboard.type("Record 2h");
    await offers(page).tap();
    await page.keyboard.press("Enter");
    await expect(slip(page).getByRole("button", { name: "Record" }).first()).toBeVisible();
    await expect(slip(page).getByRole("combobox", { name: "Add a subtask" })).toHaveValue("");

    await visit(page, `${tincup.url}/cup`);
    await line(page, "Put something in").tap();
    await page.evaluate(() => {
      const data = new DataTransfer();
      data.setData("text/plain", "Sweep the yard\nRead the report 20 min");
      document.activeElement!.dispatchEvent(
        new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
      );
    });
    const dialog = page.getByRole("dialog", { name: "Several at once" });
    await dialog.getByRole("button", { name: "20 min?" }).tap();
    await expect(dialog.getByRole("textbox")).toHaveValue(/Read the report, 20 min$/);
    await dialog.getByRole("button", { name: "Put in 2 to-dos" }).tap();
    await expect(row(page, "Read the report")).toContainText("20 min");
  });
});

test("a line keeps what is typed while the server is away, and puts it in where it stood", async ({
  page,
  complaints,
}) => {
  const t = await Tincup.start("serve", morning);
  await t.post("/api/sentence/todos", { text: "Order glass, #suppliers" });
  const overview = await (await fetch(`${t.url}/api/overview`)).json();
  await visit(page, `${t.url}/tag/${overview.tags[0].id}`);
  await line(page, "Put into suppliers").fill("Ring the mill tomorrow");
  await expect(understood(page)).toContainText("Wed 25 Nov 2026");
  await t.stop();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert").filter({ hasText: "to be read as of now" })).toBeVisible();
  t.setClock("2026-11-27T10:00:00");
  await t.launch();
  await expect(toast(page, "Read as: due Wed 25 Nov 2026")).toBeVisible({ timeout: 20_000 });
  await expect(row(page, "Ring the mill")).toBeVisible();
  await page.close();
  await t.end();
  complaints.length = 0; // the browser notes each failed request of the pause
});
