import { changes, expect, group, index, row, slip, test, toast, visit } from "./tincup";

test("a new list takes what is typed; a title is edited from its end", async ({ page, tincup }) => {
  await tincup.post("/api/shelves", { name: "Home" });
  await visit(page, `${tincup.url}/today`);
  await index(page).getByRole("button", { name: "More for the shelf Home" }).focus();
  await page.keyboard.press("Enter");
  await page.getByRole("menuitem", { name: "New list…" }).click();
  await page.keyboard.type("Shed\n");
  await expect(page.getByRole("combobox", { name: "Put into Shed" })).toBeFocused();
  await page.keyboard.type("Mend the door\nOil the lock\n");
  await expect(row(page, "Oil the lock")).toBeVisible();
  await row(page, "Mend the door").focus();
  await page.keyboard.type("e, and paint it\n");
  await expect(row(page, "Mend the door, and paint it")).toBeVisible();
  expect((await changes(tincup.url))[0]?.says).toBe(
    "Changed: “Mend the door, and paint it”, before: “Mend the door”",
  );
});

test("in a checklist the line to put in stands above what is ticked", async ({ page, tincup }) => {
  const list = await tincup.post("/api/lists", { name: "Crates" });
  await tincup.patch(`/api/lists/${list.id}`, { checklist: true });
  for (const title of ["Straps", "Foam"]) await tincup.post("/api/todos", { title, list: list.id });
  await visit(page, `${tincup.url}/list/${list.id}`);
  await row(page, "Straps").focus();
  await page.keyboard.press("Space");
  await expect(group(page, "ticked")).toContainText("Straps");
  const field = page.getByRole("combobox", { name: "Put into Crates" });
  const top = async (of: typeof field) => (await of.boundingBox())!.y;
  expect(await top(field)).toBeGreaterThan(await top(row(page, "Foam")));
  expect(await top(field)).toBeLessThan(await top(row(page, "Straps")));
  await field.fill("Labels");
  await page.keyboard.press("Enter");
  await expect(row(page, "Labels")).toBeVisible();
  await expect(field).toBeFocused();
});

test("the last message stands alone, and a title is whole with a slip open", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  await row(page, "Meter reading").focus();
  await page.keyboard.type("pphh");
  // Faster than the answers come, each key acts on what the one before made.
  await expect
    .poll(async () => (await changes(demo.url)).slice(0, 4).map((c) => c.says))
    .toEqual([
      "Out of the handful: “Meter reading, store room”",
      "In today's handful: “Meter reading, store room”",
      "Changed: “Meter reading, store room”, priority: low → medium",
      "Changed: “Meter reading, store room”, priority: none → low",
    ]);
  await expect(page.locator(".toast")).toHaveText(/Out of the handful/);
  await row(page, "Send loan agreement").click();
  await expect(slip(page)).toBeVisible();
  const cut = await page
    .locator("main .title")
    .evaluateAll((all) =>
      all.filter((t) => t.scrollWidth > t.clientWidth + 1).map((t) => t.textContent),
    );
  expect(cut).toEqual([]);
});

test("a sheet on paper has boxes to tick, and neither index nor rail", async ({ page, demo }) => {
  await visit(page, `${demo.url}/today`);
  await row(page, "Send loan agreement").click();
  await page.emulateMedia({ media: "print" });
  await expect(index(page)).toBeHidden();
  await expect(page.getByRole("navigation", { name: /^Rail/ })).toBeHidden();
  await expect(slip(page)).toBeHidden();
  await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
  await expect(row(page, "Meter reading").getByRole("checkbox")).toBeVisible();
  expect((await page.pdf({ format: "A4" })).length).toBeGreaterThan(10_000);
  await page.emulateMedia({ media: "screen" });
  // From the sheet's menu, all rows of a long list are in the page before it prints.
  await page.evaluate(() => {
    window.print = () => {
      document.title = `${document.querySelectorAll("main [data-todo]").length} rows, ${document.documentElement.dataset.printColumns} columns`;
    };
  });
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "More for Today" }).click();
  await page.getByRole("menuitem", { name: "Print in two columns" }).click();
  await expect.poll(() => page.title()).toMatch(/^\d+ rows, 2 columns$/);
});

test("search finds lists, views, tags, people and pages by name", async ({ page, demo }) => {
  await visit(page, `${demo.url}/search?q=loans`);
  const named = page.getByRole("navigation", { name: "What has this name" });
  await expect(named.getByRole("link", { name: "list Loans" })).toBeVisible();
  await named.getByRole("link", { name: "tag loans" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("loans");
});

test("with 200 lists the finder answers at once", async ({ page, tincup }) => {
  for (let i = 0; i < 200; i++) await tincup.post("/api/lists", { name: `List number ${i}` });
  await visit(page, `${tincup.url}/today`);
  await page.keyboard.press("g");
  await expect(page.getByRole("combobox", { name: "Go to" })).toBeFocused();
  // What a key costs until the page stands still, five times.
  const took: number[] = [];
  for (const letter of "list ") {
    took.push(
      await page.evaluate(async (letter) => {
        const field = document.activeElement as HTMLInputElement;
        const begun = performance.now();
        field.value += letter;
        field.dispatchEvent(new InputEvent("input", { bubbles: true }));
        await new Promise((done) => setTimeout(done));
        return performance.now() - begun;
      }, letter),
    );
  }
  console.log(`finder among 200 lists: ${took.map((t) => t.toFixed(1)).join(", ")} ms`);
  await expect(page.getByRole("option")).toHaveCount(203); // and the page of lists, their shelf, and a new one
  await page.keyboard.type("number 199\n");
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("List number 199");
});

test("the row that looks current is the one that keys act on: after a line, after a click in the index", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  await page.getByRole("link", { name: "Night Signals" }).first().click();
  const current = page.locator("main .row.current");
  await row(page, "Guided tour script").focus();
  // Esc from a line below a row: the row has the keys again, or what was put in there.
  for (const key of ["b", "i"]) {
    await row(page, "Guided tour script").focus();
    await page.keyboard.press(key);
    await page.keyboard.press("Escape");
    await expect(row(page, "Guided tour script")).toBeFocused();
    await page.keyboard.type(`${key}Put in by ${key}`);
    await page.keyboard.press("Enter");
    await expect(current).toContainText(`Put in by ${key}`);
    await page.keyboard.press("Escape");
    await expect(row(page, `Put in by ${key}`)).toBeFocused();
  }
  // From the line at the foot too.
  await page.getByRole("combobox", { name: "Put into Night Signals" }).click();
  await page.keyboard.type("Oil the lamps\n");
  await expect(current).toContainText("Oil the lamps");
  await page.keyboard.press("Escape");
  await expect(row(page, "Oil the lamps")).toBeFocused();
  await page.keyboard.press("p");
  await expect(row(page, "Oil the lamps")).toContainText("Priority low");
  // A click in the index leaves the focus there: Space ticks the current row as p raises it.
  await page.getByRole("link", { name: "The Cup" }).first().click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("The Cup");
  const title = (await current.locator(".title").textContent())!.trim();
  await page.keyboard.press("Space");
  await expect(toast(page, `Done: “${title}”`)).toBeVisible();
});
