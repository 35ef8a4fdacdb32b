import { expect, index, row, slip, test, toast, visit } from "./tincup";

test("an empty start leads to a list and a first tick, with the mouse alone", async ({
  page,
  tincup,
}) => {
  await visit(page, `${tincup.url}/`);
  await expect(page.getByText("Nothing for today")).toBeVisible();
  for (const [view, words] of [
    ["The Cup", "The Cup is empty"],
    ["Overdue", "Nothing is late"],
    ["Upcoming", "Nothing ahead"],
    ["Within a week", "Nothing due within a week"],
    ["Done", "Nothing done yet"],
    ["Bin", "The bin is empty"],
  ] as const) {
    await index(page).getByRole("link", { name: view }).click();
    await expect(page.getByText(words)).toBeVisible();
  }
  await index(page).getByRole("button", { name: "New list" }).click();
  await page.getByLabel("Name of the new list").fill("Flat");
  await page.getByLabel("Name of the new list").press("Enter");
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Flat");
  await page.getByLabel("Put into Flat").fill("Boiler service");
  await page.getByLabel("Put into Flat").press("Enter");
  await row(page, "Boiler service").getByRole("checkbox").click();
  await expect(row(page, "Boiler service")).toHaveClass(/struck/);
  await page.mouse.move(5, 5);
  await expect(row(page, "Boiler service")).toHaveCount(0);
});

test("a refusal says why and keeps what was typed", async ({ page, tincup, complaints }) => {
  await visit(page, `${tincup.url}/cup`);
  await page.keyboard.press("n");
  const line = page.getByLabel("Put something in");
  await line.fill("x".repeat(501));
  await line.press("Enter");
  await expect(page.getByRole("alert")).toContainText("501 characters; 500 is the most");
  await expect(line).toHaveValue("x".repeat(501));
  await line.fill("Short enough");
  await line.press("Enter");
  await expect(row(page, "Short enough")).toBeVisible();
  await row(page, "Short enough").click();
  await slip(page).getByLabel("Title").fill("");
  await slip(page).getByLabel("Title").press("Enter");
  await expect(slip(page).getByRole("alert")).toContainText("title is empty");
  expect(complaints.every((c) => c.includes("422"))).toBe(true);
  complaints.length = 0;
});

test("with the server away words are kept, and go in when it is back", async ({
  page,
  tincup,
  complaints,
}) => {
  await visit(page, `${tincup.url}/cup`);
  await tincup.stop();
  await expect(page.getByText("The server is away. What you see")).toBeVisible();
  const line = page.getByLabel("Put something in");
  await line.fill("Thought on the stairs");
  await line.press("Enter");
  await expect(page.getByText("Your words stay here")).toBeVisible();
  await expect(line).toHaveValue("Thought on the stairs");
  await tincup.launch();
  await expect(page.getByText("The server is away.")).toHaveCount(0);
  await expect(row(page, "Thought on the stairs")).toHaveCount(1);
  await expect(line).toHaveValue("");
  complaints.length = 0; // the requests that failed meanwhile
});

test("a page opened while the server fails says so and comes round", async ({
  page,
  demo,
  complaints,
}) => {
  await page.route("**/api/overview", (r) => r.abort());
  await page.goto(`${demo.url}/today`);
  await expect(page.getByText("The server is away").first()).toBeVisible();
  await page.unroute("**/api/overview");
  await page.getByRole("button", { name: "Try again" }).click();
  await expect(row(page, "Meter reading")).toBeVisible();
  await page.route("**/api/views/**", (r) =>
    r.fulfill({
      status: 503,
      contentType: "application/problem+json",
      body: '{"status":503,"title":"x","type":"about:blank","detail":"The data file does not answer."}',
    }),
  );
  await index(page).getByRole("link", { name: "Done" }).click();
  await expect(page.getByText("The data file does not answer.")).toBeVisible();
  complaints.length = 0;
});

test("addresses that lead nowhere say so", async ({ page, demo, complaints }) => {
  await visit(page, `${demo.url}/today`);
  for (const [path, words] of [
    ["/nowhere", "Nothing at this address"],
    ["/rail/someday", "Nothing at this address"],
    ["/rail/2026-02-31", "does not exist in the calendar"],
    ["/list/7", "nothing with this id"],
    ["/today?slip=7", "nothing with this id"],
  ] as const) {
    await page.goto(demo.url + path);
    await expect(page.getByText(words)).toBeVisible();
  }
  expect(complaints.every((c) => /404|422/.test(c))).toBe(true);
  complaints.length = 0;
});

test("a slow connection: the tick is struck before the server answers", async ({ page, demo }) => {
  await visit(page, `${demo.url}/today`);
  let answer = () => {};
  const answered = new Promise<void>((done) => (answer = done));
  await page.route("**/complete", async (r) => {
    await answered;
    await r.continue();
  });
  await row(page, "Meter reading").getByRole("checkbox").click();
  await expect(row(page, "Meter reading")).toHaveClass(/struck/);
  await expect(toast(page, "Done:")).toHaveCount(0);
  answer();
  await expect(toast(page, "Done:")).toBeVisible();
});

test("titles of every kind are text, and long ones do not break a row", async ({
  page,
  tincup,
}) => {
  const titles = [
    "<img src=x onerror=alert(1)>",
    "שלום עולם, מחר",
    "👩‍🚒 drill",
    `Long ${"word ".repeat(90)}end`,
  ];
  for (const title of titles) await tincup.post("/api/todos", { title });
  await visit(page, `${tincup.url}/cup`);
  for (const title of titles) await expect(row(page, title.trim().slice(0, 30))).toBeVisible();
  const heights = await page
    .locator("main [data-todo]")
    .evaluateAll((rows) => rows.map((r) => r.getBoundingClientRect().height));
  expect(Math.max(...heights)).toBeLessThan(44);
});

test("on a phone: put in, open, plan, close", async ({ page, demo }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await visit(page, `${demo.url}/cup`);
  const line = page.getByLabel("Put something in");
  const box = await line.boundingBox();
  expect(box!.y).toBeGreaterThan(740);
  await line.fill("Buy lamp wick");
  await line.press("Enter");
  await row(page, "Buy lamp wick").click();
  await slip(page).getByRole("button", { name: "Not planned" }).click();
  await page.getByRole("button", { name: "Tomorrow" }).click();
  await expect(slip(page).getByRole("button", { name: "Tomorrow" })).toBeVisible();
  await slip(page).getByRole("button", { name: "Close" }).click();
  await page.getByRole("button", { name: "Open the index" }).click();
  await index(page).getByRole("link", { name: "Upcoming" }).click();
  await expect(row(page, "Buy lamp wick")).toBeVisible();
});

test("single keys can be turned off, and stay off", async ({ page, demo }) => {
  await visit(page, `${demo.url}/today`);
  await page.keyboard.press("?");
  await page.getByLabel("Single keys act").uncheck();
  await page.keyboard.press("Escape");
  await page.reload();
  const first = row(page, "Volunteers’ rota for December");
  await first.focus();
  await page.keyboard.press("Delete");
  await page.keyboard.press("2");
  await page.keyboard.press("ArrowDown");
  await expect(row(page, "Answer the school")).toBeFocused();
  await expect(first).toBeVisible();
  await expect(page.locator(".toast")).toHaveCount(0);
  await page.getByRole("button", { name: "Keys" }).click();
  await page.getByLabel("Single keys act").check();
  await page.keyboard.press("Escape");
  await row(page, "Answer the school").focus();
  await page.keyboard.press("Delete");
  await expect(toast(page, "In the bin: “Answer the school")).toBeVisible();
});

test("what was typed is kept while the server is away, and over a reload", async ({
  page,
  demo,
  complaints,
}) => {
  await visit(page, `${demo.url}/cup`);
  await row(page, "Birthday card").click();
  const notes = slip(page).getByLabel("Notes");
  await notes.fill("She likes lighthouses");
  await page.reload(); // without leaving the field
  await expect(notes).toHaveValue("She likes lighthouses");

  await demo.stop();
  await notes.fill("She likes lighthouses and cake");
  await slip(page).getByLabel("Title").focus();
  await expect(slip(page).getByText("What you typed is kept here.")).toBeVisible();
  await demo.launch("--keep");
  await expect(slip(page).getByText("Saved.")).toBeVisible();
  const other = await page.context().newPage();
  await other.goto(page.url());
  await expect(slip(other).getByLabel("Notes")).toHaveValue("She likes lighthouses and cake");
  complaints.length = 0; // the requests of the pause
});
