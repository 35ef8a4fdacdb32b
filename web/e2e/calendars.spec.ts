import { standIn } from "./stand-in";
import { expect, group, history, slip, test, toast, visit } from "./tincup";

test("a calendar is removed, added by its address, changes, and Today's sentence follows", async ({
  page,
  context,
  demo,
  complaints,
}) => {
  const calendars = await standIn(demo.url);
  await visit(page, `${demo.url}/settings`);
  const part = page.locator("#calendars");
  const museum = part.locator("[data-calendar=Museum]");
  await expect(museum).toContainText(/\d+ events in the year ahead, as read Tue 24 Nov/);
  await museum.getByRole("button", { name: "More for Museum" }).click();
  await page.getByRole("menuitem", { name: "Remove" }).click();
  await expect(toast(page, "Calendar removed: “Museum”")).toBeVisible();
  await expect(museum).toHaveCount(0);

  // By keys alone: what is wrong is said, and what was typed stays.
  const field = part.getByLabel("Address of a calendar");
  await field.focus();
  await page.keyboard.type("http://127.0.0.1:1/museum.ics");
  await page.keyboard.press("Enter");
  await expect(part.getByRole("alert")).toHaveText("Nothing answers at “127.0.0.1:1”.");
  await expect(field).toHaveValue("http://127.0.0.1:1/museum.ics");
  await expect(field).toBeFocused();
  complaints.length = 0; // of the address that was refused
  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.type(calendars.museum);
  await page.keyboard.press("Enter");
  await expect(toast(page, "New calendar: “Museum”")).toBeVisible();
  await expect(field).toHaveValue("");
  await expect(museum).toBeVisible();

  // It changes: an hour and a half of this day are taken, in another window too.
  const other = await context.newPage();
  await other.goto(`${demo.url}/today`);
  const holds = other.locator("header .holds");
  await expect(holds).toContainText("7 h 20 left");
  await calendars.put("stock@museum", {
    title: "Stocktake",
    start: "2026-11-24T14:00",
    end: "2026-11-24T15:30",
  });
  await museum.getByRole("button", { name: "More for Museum" }).click();
  await page.getByRole("menuitem", { name: "Ask its address now" }).click();
  await expect(holds).toContainText("5 h 50 left");
  await expect(
    other.getByRole("button", { name: "“Stocktake” takes 1 h 30" }).first(),
  ).toBeVisible();

  // It fails: that is said, and what was read stands.
  await calendars.fault("page");
  await museum.getByRole("button", { name: "More for Museum" }).click();
  await page.getByRole("menuitem", { name: "Ask its address now" }).click();
  await expect(museum.locator(".problem")).toContainText("a web page and no calendar");
  await expect(holds).toContainText("5 h 50 left");
  expect((await history(demo.url)).slice(0, 2)).toEqual([
    "New calendar: “Museum”",
    "Calendar removed: “Museum”",
  ]);
});

test("a file of events, a whole day that takes its hours, and the undo of both", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/settings`);
  const part = page.locator("#calendars");
  await part.locator("input[type=file]").setInputFiles({
    name: "tides.ics",
    mimeType: "text/calendar",
    buffer: Buffer.from(
      "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nNAME:Tides\r\nBEGIN:VEVENT\r\nUID:low\r\nSUMMARY:Low tide walk\r\nDTSTART;VALUE=DATE:20261127\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n",
    ),
  });
  const tides = part.locator("[data-calendar=Tides]");
  await expect(tides).toContainText("1 event in the year ahead");
  await tides.getByRole("checkbox", { name: "Events of a whole day take the day" }).check();
  await expect(toast(page, "events of a whole day take the day")).toBeVisible();
  const friday = group(page, "day").filter({ hasText: "Friday 27 November" });
  await page.getByRole("navigation", { name: "Index" }).getByText("Upcoming").click();
  await expect(friday).toContainText("outside working hours");
  await expect(friday).toContainText("“Low tide walk” takes 7 h 30");
  await page.keyboard.press("ControlOrMeta+z");
  await expect(friday).not.toContainText("outside working hours");
  await page.keyboard.press("ControlOrMeta+z");
  await expect(friday).not.toContainText("Low tide");
});

test("a to-do is made of an event, and says so in its slip", async ({ page, demo }) => {
  await visit(page, `${demo.url}/upcoming`);
  const thursday = group(page, "day").filter({ hasText: "Thursday 26 November" });
  const events = thursday.getByRole("button", { name: /Volunteers’ meeting.* takes 2 h/ });
  await events.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("menuitem")).toHaveText([
    "Volunteers’ meeting, 14:00",
    "Choir practice, 19:30",
  ]);
  await page.keyboard.press("Enter");
  const opened = page.getByRole("dialog", { name: "Event: Volunteers’ meeting" });
  await expect(opened).toContainText("Thursday 26 November, 14:00 to 16:00");
  await expect(opened).toContainText("Takes 2 h of the day’s working hours");
  await page.keyboard.press("Tab");
  await page.keyboard.press("Enter");
  await expect(toast(page, "Put in: “Volunteers’ meeting”")).toBeVisible();
  const made = thursday.locator("[data-todo]").filter({ hasText: /^Volunteers’ meeting/ });
  await made.press("Enter");
  await expect(slip(page)).toContainText(
    "“Volunteers’ meeting” of the calendar “Museum”, Thu 26 Nov 2026, 14:00 to 16:00",
  );
  // Where else the day is seen its events open too, by mouse and keys; Esc gives the focus back.
  await page.goto(`${demo.url}/rail/2026-11-26`);
  await page.getByRole("button", { name: /Volunteers’ meeting.* takes 2 h/ }).click();
  await page.getByRole("menuitem", { name: "Choir practice" }).click();
  await expect(page.getByRole("dialog", { name: "Event: Choir practice" })).toContainText(
    "Takes no working hours",
  );
  await page.keyboard.press("Escape");
  await page.goto(`${demo.url}/week`);
  const cup = page.locator('[data-day="2026-11-26"]');
  const event = cup.getByRole("button", { name: "Volunteers’ meeting" }).last();
  await event.press("Enter");
  await expect(opened).toBeVisible();
  await page.keyboard.press("x");
  await page.keyboard.press("Escape");
  await expect(opened).toHaveCount(0);
  await expect(event).toBeFocused();
  // It lies within its event, whose hours are no more for it.
  await expect(cup).toHaveAccessibleName(/1 h 10 of 5 h 30/);
  await cup.locator(".name").click();
  await cup
    .locator("button.event")
    .first()
    .click({ position: { x: 10, y: 12 } });
  await expect(opened).toBeVisible();
});
