import { expect, group, index, row, test, visit } from "./tincup";

test("Today changes by itself: a due time, midnight, and after sleep", async ({
  page,
  context,
  tincup,
  complaints,
}) => {
  await tincup.post("/api/todos", { title: "Call the caterer", due: "2026-11-24T17:00" });
  await tincup.post("/api/todos", { title: "Water the plants", due: "2026-11-24" });
  await tincup.post("/api/todos", { title: "Oil the hinges", due: "2026-11-25" });
  await tincup.post("/api/todos", { title: "Post the parcel", due: "2026-11-27" });
  tincup.setClock("2026-11-24T16:59:50");
  await visit(page, `${tincup.url}/today`);
  await expect(group(page, "due-today")).toContainText("Call the caterer");

  tincup.setClock("2026-11-24T17:00:01");
  await expect(group(page, "overdue")).toContainText("17:00, earlier today");

  tincup.setClock("2026-11-24T23:59:59");
  await expect(group(page, "due-today")).toContainText("Water the plants");
  await expect(row(page, "Oil the hinges")).toHaveCount(0);
  tincup.setClock("2026-11-25T00:00:00");
  await expect(group(page, "overdue")).toContainText("Water the plants");
  await expect(group(page, "due-today")).toContainText("Oil the hinges");
  await expect(page.getByText("Wednesday 25 November.")).toBeVisible();
  await expect(index(page).getByRole("link", { name: /Overdue/ })).toContainText("2");
  await expect(page.getByRole("button", { name: /^Today, Wednesday 25/ })).toBeVisible();

  // The machine sleeps: nothing runs and nothing arrives, and two days go by.
  const session = await context.newCDPSession(page);
  await session.send("Page.setWebLifecycleState", { state: "frozen" });
  await context.setOffline(true);
  tincup.setClock("2026-11-27T08:00:00");
  await page.waitForTimeout(500);
  await context.setOffline(false);
  await session.send("Page.setWebLifecycleState", { state: "active" });
  await expect(group(page, "due-today")).toContainText("Post the parcel");
  await expect(page.getByText("Friday 27 November.")).toBeVisible();
  complaints.length = 0; // the requests that failed while it slept
});

test.describe("with a day that begins at 04:00", () => {
  test("Today lasts until then", async ({ page, tincup }) => {
    await tincup.post("/api/todos", { title: "Water the plants", due: "2026-11-24" });
    await tincup.stop();
    await tincup.launch("--day-start", "04:00");
    tincup.setClock("2026-11-25T03:59:59");
    await visit(page, `${tincup.url}/today`);
    await expect(group(page, "due-today")).toContainText("Water the plants");
    await expect(page.getByText("Tuesday 24 November.")).toBeVisible();
    tincup.setClock("2026-11-25T04:00:00");
    await expect(group(page, "overdue")).toContainText("yesterday");
    await expect(page.getByText("Wednesday 25 November.")).toBeVisible();
  });
});
