import { cup, expect, group, index, row, slip, test, toast, visit } from "./tincup";

test("from capture to check-off, by keys, through a restart, live in a second window", async ({
  page,
  context,
  tincup,
  complaints,
}) => {
  await tincup.post("/api/lists", { name: "Night Signals" });
  await visit(page, `${tincup.url}/cup`);
  await expect(page.getByText("The Cup is empty")).toBeVisible();
  const second = await context.newPage();
  await second.goto(`${tincup.url}/today`);
  await expect(second.getByText("Nothing for today")).toBeVisible();

  await page.keyboard.press("n");
  await page.keyboard.type("Order mount board");
  await page.keyboard.press("Enter");
  await expect(row(page, "Order mount board")).toBeVisible();
  await expect(group(page, "to-sort")).toContainText("Order mount board");

  // A list and a due, by keys: the row leaves the Cup.
  await page.keyboard.press("Escape");
  await page.keyboard.press("j");
  await page.keyboard.press("d");
  await expect(page.getByRole("dialog", { name: "Choose the due" })).toBeVisible();
  await page.keyboard.press("Enter"); // Today has the focus
  await expect(group(page, "laid-by")).toContainText("1");
  await page.getByRole("button", { name: /Laid by/ }).click();
  await row(page, "Order mount board").focus();
  await page.keyboard.press("l");
  await page.keyboard.type("night");
  await page.keyboard.press("Enter");
  await expect(row(page, "Order mount board")).toHaveCount(0);
  await expect(page.getByText("The Cup is empty")).toBeVisible();

  // Without a reload, it stands in Today in the other window.
  await expect(row(second, "Order mount board")).toBeVisible({ timeout: 1000 });
  await expect(group(second, "due-today")).toContainText("Night Signals");
  await index(page).getByRole("link", { name: "Night Signals" }).click();
  await expect(row(page, "Order mount board")).toBeVisible();

  // Tick: struck where it is, with an offer to undo, then in Done.
  await page.keyboard.type("gtoday\n");
  await expect(group(page, "due-today")).toContainText("Order mount board");
  await page.keyboard.press("j");
  await page.keyboard.press("Space");
  await expect(row(page, "Order mount board")).toHaveClass(/struck/);
  await expect(toast(page, "Done: “Order mount board”")).toBeVisible();
  await expect(row(second, "Order mount board")).toHaveCount(0);
  await page.keyboard.type("gdone\n");
  await expect(row(page, "Order mount board")).toHaveClass(/struck/);
  await toast(page, "Done: “Order mount board”").getByRole("button", { name: "Undo" }).click();
  await expect(row(page, "Order mount board")).toHaveCount(0);
  await expect(row(second, "Order mount board")).toBeVisible({ timeout: 1000 });

  // The server stops and starts; the page says so and goes on by itself.
  await tincup.stop();
  await expect(page.getByText("The server is away.").first()).toBeVisible();
  await tincup.launch();
  await expect(page.getByText("The server is away.")).toHaveCount(0);
  await page.keyboard.type("gtoday\n");
  await expect(group(page, "due-today")).toContainText("Order mount board");
  await expect(row(page, "Order mount board")).not.toHaveClass(/struck/);
  complaints.length = 0; // the browser notes each failed request of the pause
});

test("dragging a row onto a cup plans it; Ctrl+Z puts it back; the digit does the same", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/cup`);
  const title = "Birthday card for Dot Farrow";
  const thursday = cup(page, "2026-11-26");
  await expect(thursday).toHaveAttribute("aria-label", /: 4 to do/);

  await row(page, title).dragTo(thursday);
  await expect(thursday).toHaveAttribute("aria-label", /: 5 to do/);
  await expect(row(page, title)).toHaveCount(0);
  await thursday.click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Thursday 26 November");
  await expect(group(page, "planned")).toContainText(title);

  await page.keyboard.press("Control+z");
  await expect(thursday).toHaveAttribute("aria-label", /: 4 to do/);
  await expect(row(page, title)).toHaveCount(0);

  await index(page).getByRole("link", { name: "The Cup" }).click();
  await row(page, title).focus();
  await page.keyboard.press("3");
  await expect(thursday).toHaveAttribute("aria-label", /: 5 to do/);
  await page.keyboard.press("Control+z");
  await expect(row(page, title)).toBeVisible();
  await page.keyboard.press("Control+Shift+z");
  await expect(thursday).toHaveAttribute("aria-label", /: 5 to do/);
  await page.keyboard.press("Shift+Digit3");
  await expect(group(page, "planned")).toContainText(title);
});

test("what is typed right after a chooser's key goes into the chooser", async ({ page, demo }) => {
  await visit(page, `${demo.url}/today`);
  await page.waitForTimeout(800); // choosers are fetched after the first view
  await row(page, "Meter reading").focus();
  await page.keyboard.press("t");
  await expect(page.getByRole("combobox", { name: "Tag" })).toBeFocused();
  await page.keyboard.type("calls");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await expect(row(page, "Meter reading")).toBeFocused();
  await expect(row(page, "Meter reading")).toContainText("calls");
  await page.keyboard.press("l");
  await expect(page.getByRole("option", { name: "Store room here now" })).toHaveClass("at");
  await page.keyboard.press("Enter"); // changes nothing
  await expect(row(page, "Meter reading")).toContainText("Store room");
  await page.keyboard.press("Control+z");
  await expect(row(page, "Meter reading")).not.toContainText("calls");
});

test("eight windows of one browser are all live over one stream", async ({ context, demo }) => {
  let streams = 0;
  context.on("request", (r) => {
    if (r.url().includes("/api/events")) streams++;
  });
  const windows = [];
  for (let i = 0; i < 8; i++) {
    const w = await context.newPage();
    await w.goto(`${demo.url}/today`);
    await expect(row(w, "Meter reading, store room")).toBeVisible();
    windows.push(w);
  }
  await windows[3]!.bringToFront();
  await row(windows[3]!, "Meter reading, store room").getByRole("checkbox").click();
  for (const [i, w] of windows.entries()) {
    if (i !== 3) await expect(row(w, "Meter reading")).toHaveCount(0);
  }
  expect(streams).toBe(1);

  // When the window that listens closes, another takes over.
  await windows[0]!.close();
  await windows[5]!.waitForTimeout(300);
  await row(windows[4]!, "Confirm opening evening catering").getByRole("checkbox").click();
  await expect(row(windows[7]!, "Confirm opening")).toHaveCount(0);
  expect(streams).toBe(2);
});

test("the slip by mouse: list, due, plan, priority, tags, notes; saved by itself", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/cup`);
  await row(page, "Find out who has the key").click();
  const s = slip(page);
  await expect(s.getByLabel("Title")).toHaveValue(
    "Find out who has the key to the lantern room now",
  );

  await s.getByRole("button", { name: /None yet/ }).click();
  await page.getByRole("option", { name: "Store room" }).click();
  await expect(s.getByText("Everyday work · Store room")).toBeVisible();

  await s.getByRole("button", { name: "No due" }).click();
  await page.getByLabel("Time").fill("930");
  await page.getByRole("button", { name: "Fri 27", exact: true }).click();
  await expect(s.getByRole("button", { name: "Fri 27 Nov 2026, 09:30" })).toBeVisible();

  await s.getByRole("button", { name: "Not planned" }).click();
  await page.getByRole("button", { name: "Next week" }).last().click();
  await expect(s.getByRole("button", { name: "Next week" })).toBeVisible();

  await s.getByRole("button", { name: "High" }).click();
  await expect(s.getByRole("button", { name: "High" })).toHaveAttribute("aria-pressed", "true");

  await s.getByRole("button", { name: "No tags" }).click();
  await page.getByRole("combobox", { name: "Tag" }).fill("lantern");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await expect(s.getByText("lantern", { exact: true })).toBeVisible();

  // Notes that are left for another act are saved before it: neither is refused and sent again.
  const refused: string[] = [];
  page.on("response", (r) => r.status() === 412 && refused.push(r.url()));
  for (const priority of ["Low", "Medium", "High"]) {
    await s.getByLabel("Notes").fill(`Ask at the desk.\nThen ${priority}.`);
    await s.getByRole("button", { name: priority }).click();
    await expect(s.getByRole("button", { name: priority })).toHaveAttribute("aria-pressed", "true");
  }
  expect(refused).toEqual([]);
  await s.getByLabel("Notes").fill("Ask at the desk.\nThen the harbour.");
  await s.getByLabel("Title").click();
  await expect(s.getByText("Saved.")).toBeVisible();
  await s.getByRole("button", { name: "Close" }).click();
  await expect(s).toHaveCount(0);

  await page.reload();
  await index(page).getByRole("link", { name: "Store room" }).click();
  const moved = row(page, "Find out who has the key");
  await expect(moved).toContainText("due Fri 27 09:30");
  await expect(moved).toContainText("lantern");
  await moved.click();
  await expect(slip(page).getByLabel("Notes")).toHaveValue("Ask at the desk.\nThen the harbour.");
});

test("two windows edit one to-do: other fields both win, the same field is asked", async ({
  page,
  context,
  demo,
  complaints,
}) => {
  await visit(page, `${demo.url}/cup`);
  await row(page, "Renew the reading room card").waitFor({ state: "detached" });
  await row(page, "Birthday card").click();
  const other = await context.newPage();
  await other.goto(page.url());
  const mine = slip(page).getByLabel("Title");
  const theirs = slip(other).getByLabel("Title");

  // Another field: both are kept.
  await slip(page).getByLabel("Notes").pressSequentially("with a lighthouse");
  await theirs.fill("Birthday card and flowers for Dot");
  await theirs.press("Enter");
  await expect(slip(other).getByText("Saved.")).toBeVisible();
  await mine.click();
  await expect(slip(page).getByText("Saved.")).toBeVisible();
  await expect(mine).toHaveValue("Birthday card and flowers for Dot");

  // The same field: the later one sees the other's words and chooses.
  await mine.fill("Birthday card, flowers, cake");
  await theirs.fill("Birthday telegram");
  await theirs.press("Enter");
  await expect(slip(other).getByText("Saved.")).toBeVisible();
  await mine.press("Enter");
  await expect(slip(page).getByText("Birthday telegram")).toBeVisible();
  await expect(mine).toHaveValue("Birthday card, flowers, cake");
  await slip(page).getByRole("button", { name: "Keep what I typed" }).click();
  await expect(theirs).toHaveValue("Birthday card, flowers, cake");
  await expect(slip(other).getByLabel("Notes")).toHaveValue("with a lighthouse");
  expect(complaints.every((c) => c.includes("412"))).toBe(true);
  complaints.length = 0;
});
