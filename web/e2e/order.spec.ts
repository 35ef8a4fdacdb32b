import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import { expect, group, index, row, slip, test, toast, visit } from "./tincup";

/** A picture of one dark pixel. */
const pixel = Buffer.from(
  "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==",
  "base64",
);

/** The rows of the sheet, as many dots before each as it is deep. */
const tree = (page: Page) =>
  page.locator("main [data-todo]").evaluateAll((rows) =>
    rows.map((r) => {
      const level = Number(r.getAttribute("aria-level")) - 1;
      return "·".repeat(level) + (r.querySelector(".title")?.textContent ?? "").trim();
    }),
  );
const titles = (page: Page) =>
  page.locator("main [data-todo] .title").evaluateAll((t) => t.map((x) => x.textContent?.trim()));
const press = async (page: Page, ...keys: string[]) => {
  for (const key of keys) await page.keyboard.press(key);
};

test("by keys alone: a project of three levels, sorted and reordered", async ({ page, tincup }) => {
  const list = await tincup.post("/api/lists", { name: "Labels" });
  await visit(page, `${tincup.url}/list/${list.id}`);
  await page.getByRole("combobox", { name: "Put into Labels" }).focus();
  for (const said of ["Panels", "Bay one", "Shutter lamp", "Oil lamp", "Bay two", "Proofs, high"]) {
    await page.keyboard.type(said);
    await page.keyboard.press("Enter");
    await expect(row(page, said.split(",")[0]!)).toBeVisible();
  }
  await page.keyboard.press("Escape");
  // By priority: the high one stands first. In one's own order it stays where it was put in.
  await expect.poll(async () => (await titles(page))[0]).toBe("Priority high. Proofs");
  await page.getByRole("button", { name: "Order" }).focus();
  await press(page, "Enter");
  await expect(page.getByRole("menuitemradio", { name: "By priority, then due" })).toBeFocused();
  await press(page, "ArrowDown", "Enter");
  await expect
    .poll(() => tree(page))
    .toEqual(["Panels", "Bay one", "Shutter lamp", "Oil lamp", "Bay two", "Priority high. Proofs"]);

  await row(page, "Bay one").focus();
  await press(page, "]");
  await expect.poll(() => tree(page)).toContain("·Bay one");
  await press(page, "j", "]");
  await expect.poll(() => tree(page)).toContain("·Shutter lamp");
  await press(page, "]");
  await expect.poll(() => tree(page)).toContain("··Shutter lamp");
  await press(page, "j", "]");
  await expect.poll(() => tree(page)).toContain("·Oil lamp");
  await press(page, "]");
  await expect.poll(() => tree(page)).toContain("··Oil lamp");
  await press(page, "j", "]");
  const built = ["Panels", "·Bay one", "··Shutter lamp", "··Oil lamp", "·Bay two"];
  await expect.poll(() => tree(page)).toEqual([...built, "Priority high. Proofs"]);

  // Reorder among siblings, with what stands below; lift out; fold.
  await press(page, "Alt+ArrowUp");
  await expect
    .poll(() => tree(page))
    .toEqual([
      "Panels",
      "·Bay two",
      "·Bay one",
      "··Shutter lamp",
      "··Oil lamp",
      "Priority high. Proofs",
    ]);
  await row(page, "Oil lamp").focus();
  await press(page, "[");
  await expect.poll(() => tree(page)).toContain("·Oil lamp");
  await press(page, "Control+z", "Control+z");
  await expect.poll(() => tree(page)).toEqual([...built, "Priority high. Proofs"]);
  await press(page, "Control+Shift+z");
  await expect.poll(async () => (await tree(page))[1]).toBe("·Bay two");
  await row(page, "Panels").focus();
  await press(page, "ArrowLeft");
  await expect.poll(() => tree(page)).toEqual(["Panels", "Priority high. Proofs"]);
  await page.reload();
  await expect.poll(() => tree(page)).toEqual(["Panels", "Priority high. Proofs"]);
  await row(page, "Panels").focus();
  await press(page, "ArrowRight");
  await expect(row(page, "Oil lamp")).toBeVisible();

  // The progress is said with the tick, and the parent offered at the end.
  await row(page, "Shutter lamp").focus();
  await press(page, "Space");
  await expect(toast(page, "Bay one: 1 of 2 done, 50 %, 1 left")).toBeVisible();
  await row(page, "Oil lamp").focus();
  await press(page, "Space");
  await expect(page.getByRole("button", { name: "Finish “Bay one”" })).toBeVisible();
  await row(page, "Bay two").focus();
  await press(page, "i");
  await page.keyboard.type("Fog horn, by Friday");
  await press(page, "Enter", "Escape");
  await expect.poll(() => tree(page)).toContain("··Fog horn");
  await expect(row(page, "Fog horn")).toContainText("due Fri 27");
});

test("by mouse alone: a project of three levels, sorted and reordered by dragging", async ({
  page,
  tincup,
}) => {
  const list = await tincup.post("/api/lists", { name: "Labels" });
  const body = (title: string) => ({ title, list: list.id });
  for (const title of ["Proofs", "Bay two", "Oil lamp", "Shutter lamp", "Bay one", "Panels"])
    await tincup.post("/api/todos", body(title));
  await visit(page, `${tincup.url}/list/${list.id}`);
  await page.getByRole("button", { name: "Order" }).click();
  await page.getByRole("menuitemradio", { name: "My own order" }).click();
  const at = { x: 200, y: 3 };
  await row(page, "Panels").dragTo(row(page, "Proofs"), { targetPosition: at });
  await expect.poll(async () => (await tree(page))[0]).toBe("Panels");
  await row(page, "Bay one").dragTo(row(page, "Panels"), { targetPosition: { x: 200, y: 20 } });
  await expect.poll(() => tree(page)).toContain("·Bay one");
  for (const lamp of ["Shutter lamp", "Oil lamp"]) {
    await row(page, lamp).dragTo(row(page, "Bay one"), { targetPosition: { x: 200, y: 20 } });
    await expect.poll(() => tree(page)).toContain(`··${lamp}`);
  }
  await row(page, "Bay two").dragTo(row(page, "Panels"), { targetPosition: { x: 200, y: 20 } });
  await expect
    .poll(() => tree(page))
    .toEqual(["Panels", "·Bay one", "··Shutter lamp", "··Oil lamp", "·Bay two", "Proofs"]);
  // Behind its brother, above its uncle, and out again at the left.
  await row(page, "Oil lamp").dragTo(row(page, "Shutter lamp"), { targetPosition: at });
  await expect.poll(async () => (await tree(page))[2]).toBe("··Oil lamp");
  await row(page, "Bay two").dragTo(row(page, "Bay one"), { targetPosition: at });
  await expect.poll(async () => (await tree(page))[1]).toBe("·Bay two");
  await row(page, "Proofs").dragTo(row(page, "Shutter lamp"), { targetPosition: { x: 34, y: 34 } });
  await expect
    .poll(() => tree(page))
    .toEqual(["Panels", "·Bay two", "·Bay one", "··Oil lamp", "··Shutter lamp", "Proofs"]);
  await row(page, "Proofs").hover();
  await page.getByRole("button", { name: "More for Proofs" }).click();
  await page.getByRole("menuitem", { name: "Move up" }).click();
  await expect.poll(async () => (await tree(page))[0]).toBe("Proofs");
  // By priority again, after a change of one by the slip.
  await row(page, "Bay one").click();
  await slip(page).getByRole("button", { name: "High" }).click();
  await slip(page).getByRole("button", { name: "Close" }).click();
  await page.getByRole("button", { name: "Order" }).click();
  await page.getByRole("menuitemradio", { name: "By priority, then due" }).click();
  await expect.poll(async () => (await tree(page))[2]).toBe("·Priority high. Bay one");
  // What the order forbids makes the list keep one's own.
  await row(page, "Bay two").dragTo(row(page, "Bay one"), { targetPosition: at });
  await expect(toast(page, "The list keeps your own order now")).toBeVisible();
  await expect.poll(async () => (await tree(page))[2]).toBe("·Bay two");
});

test("by keys alone: nine across groups make room by a week, and undo", async ({ page, demo }) => {
  await visit(page, `${demo.url}/today`);
  const before = await titles(page);
  await page.keyboard.press("j");
  await press(page, "x", "j", "x", "j");
  for (let i = 0; i < 6; i++) await page.keyboard.press("Shift+ArrowDown");
  await expect(page.getByRole("toolbar")).toContainText("9 chosen");
  await press(page, "s");
  const room = page.getByRole("dialog", { name: "Make room" });
  await expect(room.getByText("These stay")).toBeVisible();
  await room.getByRole("button", { name: "a week" }).focus();
  await press(page, "Enter");
  await expect(room).toContainText("it repeats, and high priority");
  await expect(room).toContainText("a project's dates belong together");
  await room.getByRole("button", { name: "Move it too" }).first().focus();
  await press(page, "Enter");
  await expect(room.getByRole("button", { name: "Let it stay" })).toBeVisible();
  const button = room.getByRole("button", { name: /^Move \d+ to-dos$/ });
  const moving = Number(/\d+/.exec(await button.innerText())![0]);
  await button.focus();
  await press(page, "Enter");
  await expect(
    toast(page, `Moved by 1 week: ${moving} to-dos; ${9 - moving} stayed`),
  ).toBeVisible();
  await expect.poll(async () => (await titles(page)).length).toBe(before.length - moving);
  await press(page, "Control+z");
  await expect.poll(() => titles(page)).toEqual(before);

  // From Overdue it is s, then Enter, whatever the speed.
  await page.keyboard.type("gover\n");
  await expect(page.getByRole("heading", { name: "Overdue", level: 1 })).toBeVisible();
  await expect(group(page, "overdue").locator("[data-todo]")).toHaveCount(4);
  await press(page, "s", "Enter");
  await expect(toast(page, /^Moved to .*Thu 26 Nov.*: 2 to-dos; 2 stayed/)).toBeVisible();
  await expect(group(page, "overdue").locator("[data-todo]")).toHaveCount(2);
});

test("by mouse alone: choose across groups, make room, undo; act on many", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  const before = await titles(page);
  await page.getByRole("button", { name: "Choose", exact: true }).click();
  const rows = page.locator("main [data-todo]");
  // Drawn over with the pointer, then one by one.
  const from = (await rows.nth(3).boundingBox())!;
  const to = (await rows.nth(6).boundingBox())!;
  await page.mouse.move(from.x + 300, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(to.x + 300, to.y + 20, { steps: 8 });
  await page.mouse.up();
  await expect(page.getByRole("toolbar")).toContainText("4 chosen");
  for (const n of [7, 8, 9, 10, 11]) await rows.nth(n).click();
  await expect(page.getByRole("toolbar")).toContainText("9 chosen");
  await page.getByRole("toolbar").getByRole("button", { name: "Make room…" }).click();
  const room = page.getByRole("dialog", { name: "Make room" });
  await room.getByRole("button", { name: "a week" }).click();
  await expect(room.getByText("These move")).toBeVisible();
  await expect(room).toContainText("it repeats");
  await room.getByRole("button", { name: /^Move \d+ to-do/ }).click();
  await expect.poll(async () => (await titles(page)).length).toBeLessThan(before.length);
  await page.locator(".toast").getByRole("button", { name: "Undo" }).last().click();
  await expect.poll(() => titles(page)).toEqual(before);

  // All in one group, to a list, in one change.
  await group(page, "overdue").getByRole("heading").hover();
  await group(page, "overdue").getByRole("button", { name: "choose all" }).click();
  await page.getByRole("toolbar").getByRole("button", { name: "Tags" }).click();
  await page.getByRole("option", { name: "calls" }).click();
  await expect(toast(page, "Tags changed: 4 to-dos")).toBeVisible();
  await expect(group(page, "overdue").getByText("calls")).toHaveCount(4);
});

test("a list becomes a template and is poured out for a date; a checklist starts over", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  // By keys: the list's menu is a button, its dialog a form.
  await index(page).getByRole("link", { name: "Crates to pack" }).focus();
  await press(page, "Enter");
  await expect(page.locator("main h1")).toHaveText("Crates to pack");
  await page.locator("main").getByRole("button", { name: "More for Crates to pack" }).focus();
  await press(page, "Enter");
  await page.getByRole("menuitem", { name: "Save as a template…" }).focus();
  await press(page, "Enter");
  await expect(page.getByLabel("Name of the template")).toBeFocused();
  await page.keyboard.type("Packing");
  await press(page, "Enter");
  await expect(page.locator("main h1")).toHaveText("Packing");
  // By mouse: the other template, for a date.
  await index(page).getByRole("link", { name: "Put away" }).click();
  await page
    .locator("main li", { hasText: "Lending out a lamp" })
    .getByRole("button", { name: "Pour it out…" })
    .click();
  const pour = page.getByRole("dialog", { name: "Pour out" });
  await pour.getByLabel("Name of the new list").fill("Lamp for the school");
  await pour.getByLabel("Dates count from").fill("1 March 2027");
  await pour.getByRole("button", { name: "Pour out" }).click();
  await expect(page.locator("main h1")).toHaveText("Lamp for the school");
  await expect(row(page, "Ask for the borrower")).toContainText("due 1 Mar 2027");
  await expect(row(page, "Collect the lamp")).toContainText("due 12 Apr 2027");
  await expect(row(page, "Two signatures")).toHaveAttribute("aria-level", "2");
  await expect(page.locator("main").getByRole("heading", { name: "In the store" })).toBeVisible();

  await index(page).getByRole("link", { name: "Crates to pack" }).click();
  await row(page, "Tissue paper").getByRole("checkbox").click();
  await expect(group(page, "ticked")).toContainText("Tissue paper");
  await page.getByRole("button", { name: "Start over" }).click();
  await expect(group(page, "ticked")).toHaveCount(0);
  await expect(page.locator("main [data-todo]")).toHaveCount(6);
});

test("pictures and files: dropped, chosen by keys, shown, taken away", async ({ page, demo }) => {
  await visit(page, `${demo.url}/today`);
  await row(page, "Meter reading").click();
  await slip(page).getByRole("heading", { name: "Files" }).waitFor();
  const bytes = [...pixel];
  await slip(page).evaluate((pane, content) => {
    const dataTransfer = new DataTransfer();
    dataTransfer.items.add(new File([new Uint8Array(content)], "meter.png", { type: "image/png" }));
    for (const kind of ["dragover", "drop"])
      pane.dispatchEvent(new DragEvent(kind, { dataTransfer, bubbles: true, cancelable: true }));
  }, bytes);
  const picture = slip(page).getByRole("img", { name: "meter.png" });
  await expect(picture).toBeVisible();
  await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(1);
  await expect(toast(page, "Attached “meter.png”")).toBeVisible();

  const folder = mkdtempSync(join(tmpdir(), "tincup-file-"));
  writeFileSync(join(folder, "reading.txt"), "00412");
  const chooser = page.waitForEvent("filechooser");
  await slip(page)
    .getByRole("button", { name: /choose a file/ })
    .focus();
  await press(page, "Enter");
  await (await chooser).setFiles(join(folder, "reading.txt"));
  await expect(slip(page)).toContainText("reading.txt");
  await expect(slip(page)).toContainText("5 bytes");
  await slip(page).getByRole("button", { name: "Take away meter.png" }).click();
  await expect(picture).toHaveCount(0);
  await page.keyboard.press("Control+z");
  await expect(picture).toBeVisible();
});

test("two windows on one to-do: other fields both win, the same is told and asked", async ({
  page,
  context,
  demo,
  complaints,
}) => {
  await visit(page, `${demo.url}/today`);
  const second = await context.newPage(); // it shares the first one's stream
  await second.goto(`${demo.url}/today`);
  await expect(row(second, "Meter reading")).toBeVisible();
  await row(page, "Meter reading").click();
  await slip(page).getByRole("button", { name: "High" }).waitFor();
  // The first window does not hear of the second's change before it makes its own.
  await page.route("**/api/views/**", (r) => r.abort());
  await page.route("**/api/todos/*", (r) =>
    r.request().method() === "GET" ? r.abort() : r.continue(),
  );
  await row(second, "Meter reading").focus();
  await press(second, "p");
  await expect(toast(second, "Changed")).toBeVisible();
  // Another field: both win.
  await slip(page)
    .getByRole("button", { name: "Not estimated" })
    .or(slip(page).getByRole("button", { name: "5 min" }))
    .click();
  await page.keyboard.press("Control+a");
  await page.keyboard.type("25 min");
  await press(page, "Enter");
  await expect(row(second, "Meter reading")).toContainText("25 min");
  // The same field: told what the other wrote, and asked.
  await row(second, "Meter reading").focus();
  await press(second, "p");
  await expect(row(second, "Meter reading")).toContainText("Priority medium");
  await slip(page).getByRole("button", { name: "High" }).click();
  const told = toast(page, "Another window has set the priority meanwhile: medium.");
  await expect(told).toBeVisible();
  await told.getByRole("button", { name: "Set mine instead" }).click();
  await expect(row(second, "Meter reading")).toContainText("Priority high");
  await page.unrouteAll({ behavior: "wait" });
  await page.reload();
  await expect(row(page, "Meter reading")).toContainText("Priority high");
  complaints.length = 0; // the requests that were cut off, and the refusals
});

test("tags, people, lists and history in the page", async ({ page, demo, complaints }) => {
  await visit(page, `${demo.url}/tags`);
  await page.locator("main li", { hasText: "calls" }).getByRole("button").click();
  await page.getByRole("menuitem", { name: "Name and colour…" }).click();
  await page.getByRole("dialog").getByLabel("Name").fill("letters");
  await page.getByRole("dialog").getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("dialog")).toContainText("Merge the two instead");
  await page.getByRole("dialog").getByLabel("Name").fill("telephone");
  await page.getByRole("dialog").getByRole("button", { name: "Save" }).click();
  await page.getByRole("link", { name: "telephone" }).click();
  await expect(row(page, "Ring the framer")).toContainText("telephone");

  await index(page)
    .getByRole("link", { name: /^People/ })
    .click();
  await page.getByRole("link", { name: "Registrar" }).click();
  await expect(group(page, "they-owe")).toContainText("waited");
  await page.getByRole("button", { name: "More for Registrar" }).click();
  await page.getByRole("menuitem", { name: "Edit…" }).click();
  await page.getByRole("dialog").getByLabel("E-mail").fill("not an address");
  await page.getByRole("dialog").getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("dialog")).toContainText("is not an e-mail address");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toHaveCount(0);

  // Ready says why each row stands where it does, and the next action of a project by its path.
  await page.keyboard.type("gready\n");
  await row(page, "Order mount board").hover();
  await page.getByRole("button", { name: "More for Order mount board" }).click();
  await page.getByRole("menuitem", { name: "Why does it stand here?" }).click();
  await expect(
    toast(page, /stands here: 3 days left, 20 min of work, .* to spare\./),
  ).toBeVisible();
  await expect(row(page, "Count the door book")).toContainText(
    "Grant report, figures for the autumn term /",
  );

  // A list: archived, out of the index, brought back; then into the bin and undone.
  await index(page).getByRole("link", { name: "Errands" }).click();
  await page.locator("main").getByRole("button", { name: "More for Errands" }).click();
  await page.getByRole("menuitem", { name: "Archive it" }).click();
  await expect(index(page).getByRole("link", { name: "Errands" })).toHaveCount(0);
  await page.getByRole("button", { name: "Bring it back" }).click();
  await expect(index(page).getByRole("link", { name: "Errands" })).toBeVisible();
  await index(page).getByRole("link", { name: "Errands" }).focus();
  await page.keyboard.press("Alt+ArrowUp");
  await expect(toast(page, "List moved: “Errands”")).toBeVisible();
  await page.locator("main").getByRole("button", { name: "More for Errands" }).click();
  await page.getByRole("menuitem", { name: "Put the list in the bin" }).click();
  await expect(toast(page, "List in the bin: “Errands”, with 7 to-dos")).toBeVisible();
  await index(page).getByRole("link", { name: "History" }).click();
  const done = page.locator("main li", { hasText: "List in the bin" }).first();
  await expect(done).toContainText("this window");
  await done.getByRole("button", { name: "Undo" }).click();
  await expect(index(page).getByRole("link", { name: "Errands" })).toBeVisible();
  await expect(page.locator("main li", { hasText: "Undone already." })).toBeVisible();

  complaints.length = 0; // the browser notes the two refusals

  // A note has no tick and is in no count.
  await index(page).getByRole("link", { name: "Night Signals" }).first().click();
  await expect(row(page, "Wall colours").getByRole("checkbox")).toHaveCount(0);
  await row(page, "Wall colours").click();
  await slip(page).getByRole("button", { name: "Make it a to-do" }).click();
  await expect(row(page, "Wall colours").getByRole("checkbox")).toBeVisible();
});

test("by mouse alone: lists, shelves and sections are dragged among their like", async ({
  page,
  tincup,
}) => {
  const shelf = await tincup.post("/api/shelves", { name: "Museum" });
  await tincup.post("/api/shelves", { name: "Home" });
  for (const name of ["Loans", "Labels", "Opening"])
    await tincup.post("/api/lists", { name, shelf: shelf.id });
  const grant = await tincup.post("/api/lists", { name: "Grant", shelf: shelf.id });
  for (const name of ["First", "Second"])
    await tincup.post(`/api/lists/${grant.id}/sections`, { name });
  await tincup.post("/api/todos", { title: "Sum up the year", list: grant.id });
  await visit(page, `${tincup.url}/list/${grant.id}`);
  const names = () =>
    index(page)
      .locator("h3, a.entry")
      .evaluateAll((all) =>
        all
          .map((el) => (el.querySelector(".shelf-name, .name") ?? el).textContent?.trim() ?? "")
          .filter((n) => ["Museum", "Home", "Loans", "Labels", "Opening", "Grant"].includes(n)),
      );
  await expect.poll(names).toEqual(["Museum", "Loans", "Labels", "Opening", "Grant", "Home"]);
  const list = (name: string) => index(page).getByRole("link", { name });
  await list("Opening").dragTo(list("Loans"), { targetPosition: { x: 60, y: 3 } });
  await expect.poll(names).toEqual(["Museum", "Opening", "Loans", "Labels", "Grant", "Home"]);
  await list("Labels").dragTo(index(page).getByText("Home", { exact: true }));
  await expect.poll(names).toEqual(["Museum", "Opening", "Loans", "Grant", "Home", "Labels"]);
  await index(page)
    .getByText("Home", { exact: true })
    .dragTo(index(page).getByText("Museum", { exact: true }), { targetPosition: { x: 30, y: 2 } });
  await expect.poll(names).toEqual(["Home", "Labels", "Museum", "Opening", "Loans", "Grant"]);
  // Sections, and a row onto a section's head.
  const heads = () =>
    page.locator('main [data-group="section"] h2').evaluateAll((h) => h.map((x) => x.textContent));
  const head = (name: string) => page.locator("main h2").filter({ hasText: name });
  await expect.poll(async () => (await heads()).join()).toMatch(/First.*Second/);
  await head("Second").dragTo(head("First"), { targetPosition: { x: 30, y: 2 } });
  await expect.poll(async () => (await heads()).join()).toMatch(/Second.*First/);
  await row(page, "Sum up the year").dragTo(head("First"));
  await expect(
    page.locator('main [data-group="section"]').filter({ hasText: "First" }),
  ).toContainText("Sum up the year");
  await page.keyboard.press("Control+z");
  await expect(
    page.locator('main [data-group="section"]').filter({ hasText: "First" }),
  ).not.toContainText("Sum up the year");
  // A row onto a list of the index.
  await row(page, "Sum up the year").dragTo(list("Loans"));
  await expect(toast(page, "Loans")).toBeVisible();
  await expect(row(page, "Sum up the year")).toHaveCount(0);
});
