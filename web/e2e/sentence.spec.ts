import { type Page } from "@playwright/test";
import {
  expect,
  group,
  history,
  index,
  morning,
  row,
  slip,
  test,
  Tincup,
  toast,
  visit,
} from "./tincup";

const line = (page: Page) => page.getByRole("combobox", { name: "Put something in" });
const chip = (page: Page, field: string) => page.locator(`.panel .chip[data-field="${field}"]`);
const ready = (page: Page) => page.waitForTimeout(800); // choosers are fetched after the first view

test("a sentence with six fields goes in by keys alone, into its list and day", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  await page.keyboard.press("n");
  await expect(line(page)).toBeFocused();
  await expect(
    page.getByRole("list", { name: "Sentences to try" }).getByRole("button"),
  ).toHaveCount(6);
  await page.keyboard.type("Measure the bay, by Friday 4pm, in Night Si");
  // The name of the list is completed.
  await expect(page.getByRole("option", { name: "Night Signals" })).toBeVisible();
  await page.keyboard.press("Tab");
  await expect(line(page)).toHaveValue("Measure the bay, by Friday 4pm, in Night Signals");
  await page.keyboard.type(", high, #photos, 20 min, remind me 1 hour before");
  await expect(chip(page, "due")).toContainText("Fri 27 Nov 2026, 16:00");
  await expect(chip(page, "list")).toContainText("Night Signals");
  await expect(chip(page, "priority")).toContainText("high");
  await expect(chip(page, "tag")).toContainText("photos");
  await expect(chip(page, "estimate")).toContainText("20 min");
  await expect(chip(page, "reminder")).toContainText("Fri 27 Nov 2026, 15:00");
  await page.keyboard.press("Control+Enter");
  await expect(line(page)).toHaveValue("");
  await expect(toast(page, "Put in: “Measure the bay”")).toBeVisible();
  const open = slip(page);
  await expect(open.getByRole("textbox", { name: "Title" })).toHaveValue("Measure the bay");
  for (const words of [
    "Museum · Night Signals",
    "Fri 27 Nov 2026, 16:00",
    "20 min",
    "1 hour before",
  ])
    await expect(open).toContainText(words);
  await expect(open.getByRole("button", { name: "High" })).toHaveAttribute("aria-pressed", "true");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await page.keyboard.type("gupc\n");
  await expect(page.locator('[data-horizon="2026-11-27"]')).toContainText("Measure the bay");
  await index(page).getByRole("link", { name: "Night Signals" }).first().click();
  await expect(row(page, "Measure the bay")).toContainText("due Fri 27 16:00");
});

test("late replies never overwrite newer text, and a key's chip follows at once", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  // The first sentence's reply comes last.
  let held = 0;
  await page.route("**/api/sentence", async (route) => {
    const { text } = route.request().postDataJSON() as { text: string };
    if (text.includes("tomorrow") && !text.includes("Thursday")) {
      held++;
      await new Promise((done) => setTimeout(done, 900));
    }
    await route.continue();
  });
  await line(page).fill("Ring the framer tomorrow");
  await expect.poll(() => held).toBe(1);
  await line(page).fill("Ring the framer Thursday, not tomorrow, high");
  await expect(chip(page, "priority")).toContainText("high");
  await page.waitForTimeout(1200); // by now the late reply is here
  await expect(line(page)).toHaveValue("Ring the framer Thursday, not tomorrow, high");
  await expect(chip(page, "priority")).toHaveCount(1);
  await expect(chip(page, "due")).toHaveCount(0);
  // What is put in is gone, whatever comes late.
  await line(page).fill("Ring Anna tomorrow");
  await expect.poll(() => held).toBe(2);
  await line(page).fill("");
  await page.waitForTimeout(1200);
  await expect(page.locator(".panel .chip")).toHaveCount(0);
  await page.unroute("**/api/sentence");

  // From a key to the chip it makes, in the page itself; the median of seven.
  const took: number[] = [];
  for (const hour of [1, 2, 3, 4, 5, 6, 7]) {
    await line(page).fill(`Ring the framer tomorrow ${hour}p`);
    await page.waitForTimeout(200);
    await page.evaluate(
      (want) => {
        const state = window as unknown as { took?: Promise<number> };
        const input = document.querySelector('[aria-label="Put something in"]')!;
        state.took = new Promise((resolve) => {
          let begun = 0;
          input.addEventListener("input", () => (begun ||= performance.now()), { once: true });
          new MutationObserver((_, seen) => {
            const due = document.querySelector('.panel .chip[data-field="due"]');
            if (!due?.textContent?.includes(want)) return;
            seen.disconnect();
            resolve(performance.now() - begun);
          }).observe(document.body, { subtree: true, childList: true, characterData: true });
        });
      },
      `${hour + 12}:00`,
    );
    await page.keyboard.type("m");
    await expect(chip(page, "due")).toContainText(`${hour + 12}:00`);
    took.push(await page.evaluate(() => (window as unknown as { took: Promise<number> }).took));
  }
  took.sort((a, b) => a - b);
  console.log(`key to chip: ${took.map((t) => Math.round(t)).join(", ")} ms`);
});

test("a chip taken away leaves its words in the title; one opened is chosen by hand", async ({
  page,
  demo,
  complaints,
}) => {
  await visit(page, `${demo.url}/today`);
  await ready(page);
  await line(page).fill("Plan the tour tomorrow, high");
  await chip(page, "due").getByRole("button", { name: /Leave/ }).click();
  await expect(line(page)).toHaveValue('Plan the tour "tomorrow", high');
  await expect(chip(page, "due")).toHaveCount(0);
  await expect(page.locator(".panel .title")).toHaveText("Plan the tour tomorrow");
  await chip(page, "priority").locator(".body").click();
  await page.getByRole("group", { name: "Priority" }).getByRole("button", { name: "Low" }).click();
  await expect(line(page)).toHaveValue('Plan the tour "tomorrow", low');
  await page.keyboard.press("Enter");
  await expect(toast(page, "Plan the tour tomorrow")).toBeVisible();

  await line(page).fill("Pack the crates, by Friday 4pm");
  await chip(page, "due").locator(".body").click();
  await page.getByRole("textbox", { name: "Say when" }).fill("in 10 days at noon");
  await expect(page.locator(".say")).toContainText("Fri 4 Dec 2026, 12:00");
  await page.keyboard.press("Enter");
  await expect(line(page)).toHaveValue("Pack the crates, by 4 Dec 2026 12:00");
  await expect(chip(page, "due")).toContainText("Fri 4 Dec 2026, 12:00");

  // The same by keys: down to the chips, Delete leaves words, Esc goes back.
  await line(page).fill("Pack the crates, by Friday 4pm, high");
  await expect(chip(page, "priority")).toBeVisible();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Delete");
  await expect(line(page)).toHaveValue('Pack the crates, by Friday 4pm, "high"');
  await expect(line(page)).toBeFocused();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Escape");
  await expect(line(page)).toBeFocused();

  // What is understood and impossible is refused with its reason.
  await line(page).fill("Pay the rent by Friday, due Monday");
  await expect(page.locator(".panel .problems")).toContainText("There are two words for “due”");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("two words");
  await expect(line(page)).toHaveValue("Pay the rent by Friday, due Monday");
  await line(page).fill("Pay on 31 February");
  await expect(page.locator(".panel .problems")).toContainText("There is no day “31 February”.");
  await line(page).fill("#calls");
  await expect(page.locator(".panel .problems")).toContainText("There is no title yet");
  await line(page).fill("a, ".repeat(500));
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("clauses");
  await line(page).fill("a".repeat(100_000));
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("100000 bytes; 20000 is the most");
  await line(page).fill("Pay\u0007 the rent");
  await expect(page.locator(".panel .problems")).toContainText("control character (U+0007)");
  complaints.length = 0; // the browser notes each refusal
});

test("pasting an indented list makes the tree", async ({ page, demo }) => {
  await visit(page, `${demo.url}/today`);
  await ready(page);
  await line(page).focus();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData(
      "text/plain",
      "- Hire a lorry, by Friday, high\n  - [ ] Ask three firms #calls\n    - Write the letter, 20 min\n  - [x] Measure the gate\n- Tell the harbour\n- Pay 31 February\n",
    );
    document
      .querySelector('[aria-label="Put something in"]')!
      .dispatchEvent(
        new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
      );
  });
  const dialog = page.getByRole("dialog", { name: "Several at once" });
  await expect(dialog.locator("li")).toHaveCount(6);
  await expect(dialog.locator('li[data-depth="2"]')).toContainText("Write the letter");
  await expect(dialog).toContainText("There is no day “31 February”");
  await expect(dialog.getByRole("button", { name: "Put in 6 to-dos" })).toBeDisabled();
  const lines = dialog.getByRole("textbox", { name: "The lines" });
  await lines.fill((await lines.inputValue()).replace("31 February", "28 February"));
  await dialog.getByRole("combobox", { name: "Into" }).selectOption({ label: "Loans" });
  await dialog.getByRole("button", { name: "Put in 6 to-dos" }).click();
  await expect(toast(page, "Put in: 6 to-dos, 1 of them done")).toBeVisible();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Loans");
  await expect(row(page, "Hire a lorry")).toContainText("1 of 2");
  await expect(row(page, "Ask three firms")).toHaveAttribute("aria-level", "2");
  await expect(row(page, "Write the letter")).toHaveAttribute("aria-level", "3");
  await expect(row(page, "Measure the gate")).toHaveCount(0);
  await page.keyboard.press("Control+z");
  await expect(row(page, "Hire a lorry")).toHaveCount(0);
  await expect(row(page, "Tell the harbour")).toHaveCount(0);
});

test("words in an edited title are offered, and not taken unasked", async ({ page, demo }) => {
  await visit(page, `${demo.url}/cup`);
  await ready(page);
  await row(page, "Birthday card for Dot Farrow").click();
  const title = slip(page).getByRole("textbox", { name: "Title" });
  await title.click();
  await page.keyboard.press("End");
  await page.keyboard.type(" by Friday 4pm");
  const offer = slip(page).getByRole("button", { name: /Take “by Friday 4pm” as due/ });
  await expect(offer).toBeVisible();
  await title.press("Enter");
  await expect(slip(page)).toContainText("No due");
  await expect(row(page, "Birthday card for Dot Farrow by Friday 4pm")).toBeVisible();
  await title.press("End");
  await title.pressSequentially("!");
  await slip(page)
    .getByRole("button", { name: /Take “by Friday 4pm!” as due/ })
    .click();
  await expect(title).toHaveValue("Birthday card for Dot Farrow");
  await expect(slip(page)).toContainText("Fri 27 Nov 2026, 16:00");
  await expect(group(page, "laid-by")).toBeVisible();
});

test("a sentence typed while the server is away is read as of then", async ({
  page,
  complaints,
}) => {
  const t = await Tincup.start("serve", morning);
  await visit(page, `${t.url}/today`);
  await line(page).fill("Ring the framer tomorrow at 5pm");
  await expect(chip(page, "due")).toContainText("Wed 25 Nov 2026, 17:00");
  await t.stop();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert").filter({ hasText: "to be read as of now" })).toBeVisible();
  t.setClock("2026-11-27T10:00:00");
  await t.launch();
  await expect(toast(page, "Read as: due Wed 25 Nov 2026, 17:00")).toBeVisible({ timeout: 20_000 });
  await expect(group(page, "overdue")).toContainText("Ring the framer");
  await page.close();
  await t.end();
  complaints.length = 0; // the browser notes each failed request of the pause
});

test("what might mean a field is offered: taken by Tab, by the mouse, or not at all", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  await page.keyboard.press("n");
  await page.keyboard.type("Email Tomas by Friday about the boiler");
  const offers = page.getByRole("list", { name: "Might mean" }).getByRole("button");
  await expect(offers).toHaveText([/Fri 27 Nov 2026\?/]);
  await expect(page.locator(".mirror .offer")).toHaveText("by Friday");
  await page.keyboard.press("Tab");
  await expect(line(page)).toHaveValue("Email Tomas about the boiler, by Friday");
  await expect(line(page)).toBeFocused();
  await expect(chip(page, "due")).toContainText("Fri 27 Nov 2026");
  await expect(offers).toHaveCount(0);
  await page.keyboard.press("Enter");
  await expect(toast(page, "Put in: “Email Tomas about the boiler”")).toBeVisible();

  await page.keyboard.type("Read the lamp report 20 min");
  await expect(offers).toHaveText([/20 min\?/]);
  await offers.first().click();
  await expect(line(page)).toHaveValue("Read the lamp report, 20 min");
  await expect(chip(page, "estimate")).toContainText("20 min");
  await page.keyboard.press("Enter");
  await expect(toast(page, "Put in: “Read the lamp report”")).toBeVisible();

  // Set aside by Esc, and never taken unasked: the words stay words.
  await page.keyboard.type("Friday call centre");
  await expect(offers).toHaveText([/Fri 27 Nov 2026\?/]);
  await page.keyboard.press("Escape");
  await expect(offers).toHaveCount(0);
  await expect(line(page)).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(toast(page, "Put in: “Friday call centre”")).toBeVisible();
  await expect(toast(page, "27 Nov")).toHaveCount(0);

  // Without an offer Tab goes on, and Shift+Tab always leaves: no trap.
  await page.keyboard.type("Prepare slides for Friday");
  await expect(offers).toHaveCount(1);
  await page.keyboard.press("Shift+Tab");
  await expect(line(page)).not.toBeFocused();
});

test("Tab ahead of the answer takes the offer when it comes; a second Tab goes on", async ({
  page,
  demo,
}) => {
  await page.route("**/api/sentence", async (route) => {
    await new Promise((done) => setTimeout(done, 700));
    await route.continue();
  });
  await visit(page, `${demo.url}/today`);
  await page.keyboard.type("nEmail Tomas by Friday about the boiler");
  await page.keyboard.press("Tab");
  await expect(line(page)).toBeFocused();
  await expect(line(page)).toHaveValue("Email Tomas about the boiler, by Friday");
  await line(page).fill("Sweep the yard");
  await page.keyboard.press("Tab");
  await expect(line(page)).toBeFocused();
  await page.keyboard.press("Tab");
  await expect(line(page)).not.toBeFocused();
  // Enter behind the Tab is for what the offer says.
  await line(page).fill("Sow the kale, in Plot");
  await page.keyboard.press("Tab");
  await page.keyboard.press("Enter");
  // The line is free for the next one at once.
  await page.keyboard.type("Rake the path");
  await page.keyboard.press("Enter");
  await expect
    .poll(async () => (await history(demo.url)).slice(0, 2).sort())
    .toEqual(["Put in: “Rake the path”", "Put in: “Sow the kale”, and made: the list “Plot”"]);
  await expect(line(page)).toHaveValue("");
  // What has to be chosen is not put in unchosen.
  await page.keyboard.type("Water the beds twice a week");
  await page.keyboard.press("Tab");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("dialog", { name: "How it repeats" })).toBeVisible();
  await expect(line(page)).toHaveValue("Water the beds twice a week");
});

test("a line of six fields without a comma", async ({ page, demo }) => {
  await visit(page, `${demo.url}/today`);
  await page.keyboard.press("n");
  await page.keyboard.type(
    "Ring the framer by Friday 4pm in Night Signals high 20 min #calls remind me 1 hour before",
  );
  for (const [field, words] of [
    ["due", "Fri 27 Nov 2026, 16:00"],
    ["list", "Night Signals"],
    ["priority", "high"],
    ["estimate", "20 min"],
    ["tag", "calls"],
    ["reminder", "Fri 27 Nov 2026, 15:00"],
  ] as const)
    await expect(chip(page, field)).toContainText(words);
  await page.keyboard.press("Enter");
  await expect(toast(page, "Put in: “Ring the framer”")).toBeVisible();
});

test("the line at the top means the Cup wherever one is, and says so; notes are notes", async ({
  page,
  tincup,
}) => {
  const crates = await tincup.post("/api/lists", { name: "Crates" });
  await tincup.post("/api/lists", { name: "Labels" });
  await visit(page, `${tincup.url}/list/${crates.id}`);
  await page.keyboard.type("nThink of a name");
  await page.keyboard.press("Enter");
  await expect(toast(page, "Put in: “Think of a name”. In the Cup")).toBeVisible();
  await expect(row(page, "Think of a name")).toHaveCount(0);
  await page.keyboard.type("Order ink, in Labels, start Friday");
  await expect(chip(page, "list")).toContainText("Labels");
  await page.keyboard.press("Enter");
  await expect(toast(page, "Put in: “Order ink”. In Labels, comes back Fri 27")).toBeVisible();
  // One Esc gives the keys back to the sheet.
  await page.keyboard.press("Escape");
  await expect(line(page)).not.toBeFocused();

  await page.goto(`${tincup.url}/cup`);
  await expect(row(page, "Think of a name")).toBeVisible();
  await page.keyboard.press("n");
  await page.keyboard.type("note: the crates are 60 cm wide");
  await expect(chip(page, "kind")).toContainText("note");
  // Left for later, it waits on every page, and can be cleared.
  await page.keyboard.press("Escape");
  await index(page).getByRole("link", { name: "Today" }).click();
  await expect(line(page)).toHaveValue("note: the crates are 60 cm wide");
  await page.keyboard.press("n");
  await page.keyboard.press("Enter");
  await expect(toast(page, "Put in: “the crates are 60 cm wide”")).toBeVisible();
  await page.keyboard.type("Nothing much");
  await page.getByRole("button", { name: "Clear the line" }).click();
  await expect(line(page)).toHaveValue("");
  await index(page).getByRole("link", { name: "The Cup" }).click();
  await page.getByRole("button", { name: /Waited on, and notes/ }).click();
  await expect(
    row(page, "the crates are 60 cm wide").getByRole("img", { name: "Note" }),
  ).toBeVisible();
});

test("an unknown list and an unknown person are made by their offers, and undone at once", async ({
  page,
  tincup,
}) => {
  await visit(page, `${tincup.url}/today`);
  const offers = page.getByRole("list", { name: "Might mean" }).getByRole("button");
  const rail = index(page);
  await page.keyboard.type("nSow the beans, in Garden, ask the framer");
  await expect(offers).toHaveText([/Garden, a new list\?/, /Framer, a new person\?/]);
  await page.keyboard.press("Tab");
  await expect(chip(page, "list")).toContainText("Garden, a new list");
  await expect(rail).not.toContainText("Garden");
  await offers.filter({ hasText: "Framer" }).click();
  await expect(line(page)).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(toast(page, "made: the list “Garden”, the person “Framer”")).toBeVisible();
  await expect(rail).toContainText("Garden");
  await expect(line(page)).toHaveValue("");
  // The list is there now: its name is read, and made no second time.
  await page.keyboard.type("Sow the peas, in Garden");
  await expect(chip(page, "list")).toContainText("Garden");
  await expect(offers).toHaveCount(0);
  await page.keyboard.press("Enter");
  await expect(toast(page, "Put in: “Sow the peas”")).toBeVisible();
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+z");
  await expect(toast(page, "Undone. Put in: “Sow the peas”")).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(toast(page, "Undone. Put in: “Sow the beans”")).toBeVisible();
  await expect(rail).not.toContainText("Garden");
});

test("“twice a week” asks on which days, and a wrong half of the day is one tap away", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  await page.keyboard.type("nWater the beds twice a week");
  const offers = page.getByRole("list", { name: "Might mean" }).getByRole("button");
  await expect(offers).toHaveText([/on which days\?/]);
  await page.keyboard.press("Tab");
  const editor = page.getByRole("dialog", { name: "How it repeats" });
  await editor.getByRole("button", { name: "Monday" }).click();
  await editor.getByRole("button", { name: "Thursday" }).click();
  await expect(editor.getByRole("status")).toContainText("Monday and Thursday");
  await editor.getByRole("button", { name: "Let it repeat" }).click();
  await expect(line(page)).toHaveValue(/^Water the beds, every Monday and Thursday/);
  await expect(chip(page, "repeat")).toContainText("every Monday and Thursday");

  await line(page).fill("Ring Bo tomorrow at 8");
  await expect(chip(page, "due")).toContainText("Wed 25 Nov 2026, 08:00");
  await offers.filter({ hasText: "20:00" }).click();
  await expect(line(page)).toHaveValue("Ring Bo tomorrow at 8 pm");
  await expect(chip(page, "due")).toContainText("20:00");
});

/** Gives the line a file as the clipboard or a drag would. */
const give = (page: Page, how: "paste" | "drop", name: string, type: string, bytes: number[]) =>
  line(page).evaluate(
    (input, [how, name, type, bytes]) => {
      const data = new DataTransfer();
      data.items.add(new File([new Uint8Array(bytes)], name, { type }));
      input.dispatchEvent(
        how === "paste"
          ? new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true })
          : new DragEvent("drop", { dataTransfer: data, bubbles: true, cancelable: true }),
      );
    },
    [how, name, type, bytes] as const,
  );

test("a picture pasted and a file dropped on the line go with the to-do, in one undo", async ({
  page,
  demo,
  complaints,
}) => {
  await visit(page, `${demo.url}/today`);
  await page.keyboard.type("nMeasure the lamp tomorrow");
  const dot = [
    137, 80, 78, 71, 13, 10, 26, 10, 0, 0, 0, 13, 73, 72, 68, 82, 0, 0, 0, 1, 0, 0, 0, 1, 8, 6, 0,
    0, 0, 31, 21, 196, 137, 0, 0, 0, 13, 73, 68, 65, 84, 120, 218, 99, 252, 207, 192, 80, 15, 0, 4,
    133, 1, 128, 132, 169, 140, 33, 0, 0, 0, 0, 73, 69, 78, 68, 174, 66, 96, 130,
  ];
  const files = page.getByRole("list", { name: "Files that go with it" }).getByRole("listitem");
  await give(page, "paste", "lamp.png", "image/png", dot);
  await expect(files).toHaveText([/lamp\.png, \d+ bytes/]);
  await give(page, "drop", "sizes.txt", "text/plain", [54, 48]);
  await give(page, "drop", "wrong.txt", "text/plain", [55]);
  await expect(files).toHaveCount(3);
  await files.nth(2).getByRole("button").click();
  await expect(files).toHaveCount(2);
  // What waits in the line says so and covers nothing, on another page and after a reload.
  await page.reload();
  await expect(line(page)).toHaveValue("Measure the lamp tomorrow");
  await expect(page.locator("#capture-panel")).toHaveCount(0);
  await line(page).fill("");
  await line(page).blur();
  await expect(line(page)).toHaveAttribute("placeholder", /with lamp\.png and others/);
  await expect(page.locator("#capture-panel")).toHaveCount(0);
  await page.keyboard.press("n");
  await page.keyboard.type("Measure the lamp tomorrow");
  await expect(files).toHaveCount(2);
  await page.keyboard.press("Control+Enter");
  await expect(toast(page, "Put in: “Measure the lamp”")).toBeVisible();
  await expect(files).toHaveCount(0);
  await expect(slip(page)).toContainText("lamp.png");
  await expect(slip(page)).toContainText("sizes.txt");
  await expect(slip(page).getByRole("img", { name: "lamp.png" })).toBeVisible();
  await toast(page, "Put in: “Measure the lamp”").getByRole("button", { name: "Undo" }).click();
  await expect(toast(page, "Undone. Put in: “Measure the lamp”")).toBeVisible();

  // Enter ahead of a slow upload waits for it.
  await page.route("**/api/files?*", async (route) => {
    await new Promise((done) => setTimeout(done, 600));
    await route.continue();
  });
  await page.keyboard.press("Escape");
  await page.keyboard.type("nMeasure the hook");
  await give(page, "paste", "hook.png", "image/png", dot);
  await page.keyboard.press("Control+Enter");
  await expect(toast(page, "Put in: “Measure the hook”")).toBeVisible();
  await expect(slip(page)).toContainText("hook.png");

  // A file that is none of what its name says is refused, and the words stay.
  await page.keyboard.press("Escape");
  await page.keyboard.type("nMeasure the nail");
  await give(page, "paste", "nail.png", "image/png", [1, 2, 3]);
  await expect(page.getByRole("alert")).toContainText("nail.png");
  await expect(line(page)).toHaveValue("Measure the nail");
  complaints.length = 0; // of the slip that was undone, and of the nail
});

test("deep or light: said, shown, changed in the slip, for many, and by its column", async ({
  page,
  tincup,
}) => {
  await tincup.post("/api/todos", { title: "Sort the screws" });
  await visit(page, `${tincup.url}/cup`);
  await page.keyboard.press("n");
  await page.keyboard.type("Draft the opening speech, deep, begun, 90 min");
  await expect(chip(page, "concentration")).toContainText("deep");
  await expect(chip(page, "status")).toContainText("begun");
  await page.keyboard.press("Enter");
  const speech = row(page, "Draft the opening speech");
  await expect(speech).toContainText("deep work");

  await page.keyboard.press("Escape");
  await speech.locator(".title").click();
  const kinds = slip(page).getByRole("group", { name: "Concentration" });
  await expect(kinds.getByRole("button", { name: "Deep" })).toHaveAttribute("aria-pressed", "true");
  await kinds.getByRole("button", { name: "Unset" }).click();
  await expect(speech).not.toContainText("work");
  await slip(page).getByRole("button", { name: "Close" }).click();

  await speech.focus();
  await page.keyboard.press("x");
  await row(page, "Sort the screws").focus();
  await page.keyboard.press("x");
  await page.getByRole("button", { name: "Concentration" }).click();
  await page.getByRole("menuitem", { name: "Light" }).click();
  await expect(speech).toContainText("light work");
  await page.keyboard.press("Control+z");
  await expect(speech).not.toContainText("light work");

  await page.goto(`${tincup.url}/cup?shape=columns&by=concentration`);
  const column = (name: string) => page.locator(`[data-column="${name}"]`);
  await expect(column("deep")).toContainText("Nothing here.");
  await page.locator("main [data-todo]").filter({ hasText: "Sort the screws" }).focus();
  await page.keyboard.press("<");
  await expect(column("light")).toContainText("Sort the screws");
  expect(await history(tincup.url)).toEqual([
    "Changed: “Sort the screws”, concentration: none → light",
    "Undone. Changed: 2 to-dos, concentration: light",
    "Changed: 2 to-dos, concentration: light",
    "Changed: “Draft the opening speech”, concentration: deep → none",
    "Put in: “Draft the opening speech”",
    "Put in: “Sort the screws”",
  ]);
});
