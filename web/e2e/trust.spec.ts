import { changes, expect, history, index, latest, row, slip, test, toast, visit } from "./tincup";

test("two windows rename one list: the second is told, and asked; other fields both win", async ({
  context,
  page,
  tincup,
  complaints,
}) => {
  const list = await tincup.post("/api/lists", { name: "Labels" });
  const rename = async (p: typeof page) => {
    await p.getByRole("main").getByRole("button", { name: "More for Labels" }).click();
    await p.getByRole("menuitem", { name: "Name and colour…" }).click();
    return p.getByRole("dialog");
  };
  await visit(page, `${tincup.url}/list/${list.id}`);
  const other = await context.newPage();
  await other.goto(`${tincup.url}/list/${list.id}`);
  const [mine, theirs] = [await rename(page), await rename(other)];
  await theirs.getByLabel("Name", { exact: true }).fill("Wall labels");
  await theirs.getByRole("button", { name: "Save" }).click();
  await expect(theirs).toBeHidden();

  await mine.getByLabel("Name", { exact: true }).fill("Case labels");
  await mine.getByRole("button", { name: "Save" }).click();
  await expect(mine.getByRole("alert")).toContainText(
    "Another window has changed the name meanwhile: “Wall labels”. Yours was not kept. Save again to set yours.",
  );
  await mine.getByRole("button", { name: "Save" }).click();
  await expect(mine).toBeHidden();
  await expect(index(page).getByText("Case labels")).toBeVisible();

  // The colour in one window, the name in another: both stay.
  const more = { name: "More for Case labels" };
  for (const p of [page, other]) {
    await p.getByRole("main").getByRole("button", more).click();
    await p.getByRole("menuitem", { name: "Name and colour…" }).click();
  }
  await theirs.getByRole("radio", { name: "plum" }).click();
  await theirs.getByRole("button", { name: "Save" }).click();
  await expect(theirs).toBeHidden();
  await mine.getByLabel("Name", { exact: true }).fill("Labels at last");
  await mine.getByRole("button", { name: "Save" }).click();
  await expect(mine).toBeHidden();
  const res = await fetch(`${tincup.url}/api/overview`);
  const overview = (await res.json()) as {
    shelves: { lists: { name: string; colour: string }[] }[];
  };
  expect(overview.shelves[0]?.lists[0]).toMatchObject({ name: "Labels at last", colour: "plum" });
  // The browser itself remarks on each 412.
  expect(complaints.every((c) => c.includes("412"))).toBe(true);
  complaints.length = 0;
});

test("a read that outruns the event of a change leaves nothing old", async ({ page, tincup }) => {
  // The stream of this window tells everything a second late.
  await page.addInitScript(() => {
    const told = EventSource.prototype.addEventListener as (kind: string, l: unknown) => void;
    EventSource.prototype.addEventListener = function (kind: string, l: unknown) {
      const late = (e: Event) =>
        setTimeout(() => (l as (e: Event) => void)(e), kind === "change" ? 1000 : 0);
      told.call(this, kind, late);
    };
  });
  await visit(page, `${tincup.url}/today`);
  const entry = index(page).getByRole("link", { name: /Cup/ });
  await expect(entry).not.toContainText("1");
  await tincup.post("/api/todos", { title: "Ring the framer" });
  // Another sheet is read before the window is told.
  await index(page).getByRole("link", { name: "Done" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Done" })).toBeVisible();
  await expect(entry).toContainText("1");
});

test("a completed card that is dragged to Begun is so by one change, with one undo", async ({
  page,
  tincup,
}) => {
  const todo = await tincup.post("/api/todos", { title: "Count the brackets" });
  await tincup.post("/api/todos", { title: "Number the proofs" });
  await tincup.post(`/api/todos/${todo.id}/complete`, {});
  const view = await tincup.post("/api/own-views", {
    name: "All",
    definition: {
      filter: {
        field: "status",
        op: "any-of",
        values: ["needs-action", "in-process", "completed"],
      },
      group: "status",
      shape: "columns",
    },
  });
  await visit(page, `${tincup.url}/view/${view.id}`);
  const card = row(page, "Count the brackets");
  await card.dragTo(page.locator('[data-column="in-process"]'));
  await expect(page.locator('[data-column="in-process"]')).toContainText("Count the brackets");
  await expect(toast(page, "Changed: “Count the brackets”")).toBeVisible();
  expect((await history(tincup.url))[0]).toContain("Changed: “Count the brackets”");
  await page.keyboard.press("Control+z");
  await expect(page.locator('[data-column="completed"]')).toContainText("Count the brackets");
});

test("what takes long says that it is being done, and what was done after it", async ({
  page,
  tincup,
}) => {
  for (const title of ["Frame", "Hang"]) await tincup.post("/api/todos", { title });
  await page.route("**/api/many", async (route) => {
    await new Promise((done) => setTimeout(done, 1500));
    await route.continue();
  });
  await visit(page, `${tincup.url}/cup`);
  await row(page, "Frame").focus();
  await page.keyboard.press("x");
  await page.keyboard.press("j");
  await page.keyboard.press("x");
  await page.keyboard.press("Delete");
  await expect(toast(page, "Changing 2 to-dos…")).toBeVisible();
  await expect(toast(page, "In the bin: 2 to-dos")).toBeVisible();
  await expect(toast(page, "Changing 2 to-dos…")).toBeHidden();
});

test("the bin counts its days where the person is", async ({ page, tincup }) => {
  // Half past midnight in Lisbon's summer is still the day before in UTC.
  tincup.setClock("2027-06-25T00:30:00");
  const todo = await tincup.post("/api/todos", { title: "Old note" });
  await fetch(`${tincup.url}/api/todos/${todo.id}`, {
    method: "DELETE",
    headers: { "If-Match": "*" },
  });
  await visit(page, `${tincup.url}/bin`);
  await expect(row(page, "Old note")).toContainText("30 days left");
});

test("keys typed ahead of a chooser reach it, and nothing else", async ({
  page,
  demo,
  complaints,
}) => {
  const start = await latest(demo.url);
  const told = async () => (await changes(demo.url)).filter((c) => c.revision > start);
  const overlay = page.locator(".v-overlay__content");
  // A slow connection: what a chooser is made of comes late.
  await page.route(/ChooserHost/, async (route) => {
    await new Promise((done) => setTimeout(done, 2000));
    await route.continue();
  });
  await visit(page, `${demo.url}/today`);
  await row(page, "Meter reading").focus();
  // To another list and back, five times running, without waiting for the chooser.
  for (let i = 1; i <= 10; i++) {
    const list = i % 2 ? "Opening evening" : "Store room";
    await page.keyboard.type(`l${list}\n`);
    await expect
      .poll(async () => (await told())[0]?.says, { message: `round ${i}` })
      .toContain(`Moved to ${list}`);
    expect((await told()).length).toBe(i);
    await expect(overlay).toHaveCount(0);
    await row(page, "Meter reading").focus();
  }

  // Words for a date begin in their line, whichever button has the focus.
  await page.keyboard.type("dfri 4pm\n");
  await expect.poll(async () => (await told()).length).toBe(11);
  await page.goto(`${demo.url}/upcoming`);
  await expect(row(page, "Meter reading")).toContainText("16:00");
  await expect(overlay).toHaveCount(0);
  complaints.length = 0; // "f" is no date yet, nor is "fri 4"

  // Enter after the button that opens it is the chooser's, not the button's once more.
  await page.goto(`${demo.url}/today`);
  await row(page, "Send loan agreement").click();
  const asks = slip(page).getByRole("button", { name: "For Registrar" });
  await asks.click();
  await page.keyboard.type("Glaz");
  await expect(page.getByRole("combobox", { name: "Person" })).toHaveValue("Glaz");
  await page.keyboard.press("Escape");
  await expect(overlay).toHaveCount(0);
  for (let i = 0; i < 5; i++) {
    await asks.click();
    await page.keyboard.press("Enter");
    await page.waitForTimeout(400); // it opens, and the Enter closes it
    await expect(overlay).toHaveCount(0);
  }
  expect((await told()).length).toBe(11);
});

test("undo says what stands in its way, and passes over it while that is read", async ({
  page,
  tincup,
  complaints,
}) => {
  const todo = (await tincup.post("/api/todos", { title: "Oil the hinge" })) as { id: string };
  await tincup.post("/api/todos", { title: "Trim the wicks" });
  await visit(page, `${tincup.url}/cup`);
  await row(page, "Trim the wicks").focus();
  await page.keyboard.press("p");
  await expect(row(page, "Trim the wicks")).toContainText("Priority low");
  await row(page, "Oil the hinge").focus();
  await page.keyboard.press("p");
  await expect(row(page, "Oil the hinge")).toContainText("Priority low");
  // Another window raises it further.
  await tincup.patch(`/api/todos/${todo.id}`, { priority: "high" });
  await expect(row(page, "Oil the hinge")).toContainText("Priority high");
  await page.keyboard.press("Control+z");
  const told = toast(
    page,
    "is not undone: “Oil the hinge” has since been changed further (priority)",
  );
  await expect(told).toContainText("Undo again passes over it.");
  await page.keyboard.press("Control+z");
  await expect(row(page, "Trim the wicks")).not.toContainText("Priority low");
  await expect(row(page, "Oil the hinge")).toContainText("Priority high");
  // A change made meanwhile is undone first.
  await row(page, "Trim the wicks").focus();
  await page.keyboard.press("h");
  await expect(toast(page, "handful")).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(toast(page, "Undone.").last()).toContainText("handful");
  complaints.length = 0; // of the undo that was refused
});
