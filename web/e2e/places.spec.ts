import { execFile } from "node:child_process";
import { promisify } from "node:util";
import type { BrowserContext, Page } from "@playwright/test";
import { expect, history, index, row, slip, test, toast, visit } from "./tincup";

const run = promisify(execFile);
const binary = new URL("../../bin/tincup", import.meta.url).pathname;
const museum = { latitude: 43.41, longitude: -9.62, accuracy: 20 };
const away = { latitude: 43.42, longitude: -9.62, accuracy: 20 };

const card = (page: Page, title: string) =>
  page.getByRole("article", { name: `Reminder: ${title}` });
const place = (page: Page, name: string) => page.locator(`[data-place="${name}"]`);
const form = (page: Page) => page.getByRole("form");
const where = (page: Page) => page.getByRole("button", { name: /^Your position is read/ });

/** The browser tells where it is, and its words to the person are said. */
async function located(context: BrowserContext, at: typeof museum) {
  await context.grantPermissions(["geolocation"]);
  await context.setGeolocation(at);
}

test("a place is made where one stands; arriving rings, in two windows, and again the next time", async ({
  context,
  page,
  tincup,
  complaints,
}) => {
  await located(context, museum);
  await tincup.post("/api/todos", { title: "Air the store" });
  await visit(page, `${tincup.url}/places`);
  await page.getByRole("button", { name: "New place…" }).click();
  // What is wrong is said beside it, and what was typed stays.
  await page.keyboard.type("The museum");
  await page.getByLabel("Position").fill("up the hill");
  await page.getByLabel("Within metres").fill("0");
  await page.keyboard.press("Enter");
  await expect(form(page).getByRole("alert")).toContainText("“up the hill” is not a position");
  await form(page).getByRole("button", { name: "Where I am now" }).click();
  await expect(page.getByLabel("Position")).toHaveValue("43.410000, -9.620000");
  await form(page).getByRole("button", { name: "Add the place" }).click();
  await expect(form(page).getByRole("alert")).toContainText("50 to 5000 m");
  await page.getByLabel("Within metres").fill("200");
  await page.keyboard.press("Enter");
  await expect(toast(page, "New place: “The museum”")).toBeVisible();
  await expect(place(page, "The museum")).toContainText("43.41, -9.62, within 200 m");
  expect(complaints.every((c) => c.includes("422"))).toBe(true); // of what was refused
  complaints.length = 0;

  // A sentence reminds there; nobody watches before it is allowed.
  await page.keyboard.press("n");
  await page.keyboard.type("Count the lamps when I get to the museum");
  await expect(page.getByText("on arriving at The museum")).toBeVisible();
  await page.keyboard.press("Control+Enter");
  await expect(slip(page)).toContainText("rings whenever you get there");
  await expect(where(page)).toHaveCount(0);
  await context.setGeolocation(away);
  tincup.setClock("2026-11-24T09:30:00");
  await slip(page).getByRole("button", { name: "Let it notice them" }).click();
  await expect(where(page)).toBeVisible();
  const other = await context.newPage();
  await other.goto(`${tincup.url}/here`);
  await expect(other.getByText("You are at none of your places")).toBeVisible();

  tincup.setClock("2026-11-24T09:45:00");
  await context.setGeolocation(museum);
  for (const p of [page, other])
    await expect(card(p, "Count the lamps")).toContainText("On arriving at The museum");
  await expect(index(other).getByRole("link", { name: /^Here/ })).toContainText("The museum");
  await card(other, "Count the lamps").getByRole("button", { name: "Seen" }).click();
  await expect(card(page, "Count the lamps")).toHaveCount(0);
  // It is done where it rings.
  await slip(page).getByRole("button", { name: "Nowhere in particular" }).click();
  await page.keyboard.type("muse");
  await page.keyboard.press("Enter");
  await expect(row(other, "Count the lamps")).toBeVisible();

  // Gone and back within ten minutes is told of once; later it rings again.
  await context.setGeolocation(away);
  await expect(row(other, "Count the lamps")).toHaveCount(0);
  await context.setGeolocation(museum);
  await expect(row(other, "Count the lamps")).toBeVisible();
  await expect(card(page, "Count the lamps")).toHaveCount(0);
  await context.setGeolocation(away);
  await expect(row(other, "Count the lamps")).toHaveCount(0);
  tincup.setClock("2026-11-24T12:00:00");
  await context.setGeolocation(museum);
  await expect(card(other, "Count the lamps")).toBeVisible();
  await card(other, "Count the lamps").getByRole("button", { name: "Done" }).click();
  await expect(where(page)).toHaveCount(0); // nothing waits for a place
  expect((await history(tincup.url)).slice(0, 6)).toEqual([
    "Done: “Count the lamps”",
    "Rang: “Count the lamps”",
    "Changed: “Count the lamps”, place: none → The museum",
    "Seen: “Count the lamps”",
    "Rang: “Count the lamps”",
    "Put in: “Count the lamps”",
  ]);
});

test("by keys alone: a reminder on leaving, words for a place nobody knows, a place renamed and removed", async ({
  page,
  tincup,
  complaints,
}) => {
  await tincup.post("/api/places", { name: "The museum", middle: "43.41, -9.62" });
  const { id } = await tincup.post("/api/todos", { title: "Buy bread" });
  await visit(page, `${tincup.url}/cup?slip=${id}`);
  const another = slip(page).getByRole("button", { name: "No reminder" });
  await another.focus();
  await page.keyboard.press("Enter");
  await page.keyboard.type("when I leave the harbour\n");
  await expect(slip(page).getByRole("alert")).toContainText(
    "None of your places is called “the harbour”",
  );
  complaints.length = 0; // of words that are none yet
  await page.keyboard.press("Control+a");
  await page.keyboard.type("when I leave the museum\n");
  await expect(slip(page)).toContainText("on leaving The museum");
  // A sound of its own, and back to the usual one.
  const sound = slip(page).getByLabel("The sound of the reminder on leaving The museum");
  await sound.selectOption("drip");
  await expect.poll(async () => (await history(tincup.url))[0]).toContain("drip");
  await expect(sound).toHaveValue("drip");

  await page.goto(`${tincup.url}/places`);
  await page.getByRole("button", { name: /^Change The museum/ }).focus();
  await page.keyboard.press("Enter");
  await page.keyboard.press("Control+a");
  await page.keyboard.type("The lamp museum\n");
  await expect(place(page, "The lamp museum")).toBeVisible();
  await expect(page.getByRole("button", { name: /^Change The lamp museum/ })).toBeFocused();
  await page.keyboard.press("Enter");
  await page.keyboard.type("Nothing of this is kept");
  await page.keyboard.press("Escape");
  await expect(form(page)).toHaveCount(0);
  await page.keyboard.press("Tab");
  await page.keyboard.press("Enter");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(toast(page, "Place removed: “The lamp museum”, from 1 to-do")).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(place(page, "The lamp museum")).toBeVisible();
  const said = await history(tincup.url);
  expect(said[0]).toBe("Undone. Place removed: “The lamp museum”, from 1 to-do");
  expect(said[2]).toBe("Place renamed: “The museum” is now “The lamp museum”");
  await page.goto(`${tincup.url}/cup?slip=${id}`);
  await expect(slip(page)).toContainText("on leaving The lamp museum");
});

test("a browser that may not say where it is says so, and is listened to again", async ({
  context,
  page,
  tincup,
}) => {
  await tincup.post("/api/places", { name: "The museum", middle: "43.41, -9.62" });
  await tincup.post("/api/todos", { title: "Count", reminders: ["ARRIVE:The museum"] });
  await context.setGeolocation(away);
  await context.clearPermissions(); // nothing is allowed that is not granted
  await visit(page, `${tincup.url}/settings#places`);
  await page.getByLabel("Notice in this browser at which of my places I am").check();
  const refused = page.getByRole("button", { name: /was told not to say where you are/ });
  await expect(refused).toBeVisible();
  tincup.setClock("2026-11-24T10:00:00");
  await located(context, museum);
  await page.reload();
  await expect(where(page)).toHaveAccessibleName(/you are at The museum/);
  await expect(card(page, "Count")).toBeVisible();
  // Stopped from where it is said.
  await where(page).click();
  await page.getByRole("menuitem", { name: "Notice places no more in this browser" }).click();
  await expect(where(page)).toHaveCount(0);
  await expect(
    page.getByLabel("Notice in this browser at which of my places I am"),
  ).not.toBeChecked();
});

test("the simulated device walks, and connects; a finger adds a place", async ({
  browser,
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/here`);
  demo.setClock("2026-11-24T11:00:00");
  await expect(page.getByRole("button", { name: /^Bell: / })).toBeVisible();
  await demo.post("/api/bell/seen", { all: true }); // what rings at its time
  const device = (...args: string[]) =>
    run(binary, ["device", ...args, "--server", demo.url, "--every", "20ms"]);
  expect((await device("walk", "the museum")).stdout).toContain("It is at the museum");
  await expect(card(page, "Oil the lantern room hinges")).toBeVisible();
  await expect(row(page, "Label the new shelves")).toBeVisible();
  await device("walk", "the allotment", "--from", "43.41, -9.62");
  await expect(card(page, "Sharpen the spade")).toBeVisible();
  await page.getByRole("button", { name: /^Bell: / }).click();
  const bell = page.getByRole("dialog", { name: "Bell" });
  await expect(bell.getByRole("listitem").filter({ hasText: "Stamps" })).toContainText(
    "On leaving the museum",
  );
  await page.keyboard.press("Escape");
  await expect(row(page, "Turn the compost")).toBeVisible();

  await demo.post("/api/bell/seen", { all: true });
  const phone = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  });
  const hand = await phone.newPage();
  await hand.goto(`${demo.url}/places`);
  await hand.getByRole("button", { name: "New place…" }).tap();
  await hand.getByLabel("Name").fill("The harbour");
  await hand.getByRole("button", { name: "Add the place" }).tap();
  await expect(place(hand, "The harbour")).toContainText("no position yet");
  await expect(place(hand, "the allotment")).toContainText("You are here");
  await phone.close();
});

test("from a place without a position a link leads to giving one", async ({ page, tincup }) => {
  const { id } = await tincup.post("/api/todos", { title: "Air the store" });
  await tincup.patch(`/api/todos/${id}`, { place: "The lighthouse" });
  await visit(page, `${tincup.url}/cup?slip=${id}`);
  await expect(slip(page)).toContainText(/the lighthouse has no position yet/i);
  await slip(page).getByRole("link", { name: "Give it one" }).click();
  await expect(form(page)).toBeVisible();
  await form(page).getByLabel("Position").fill("43.41, -9.62");
  await page.keyboard.press("Enter");
  await visit(page, `${tincup.url}/cup?slip=${id}`);
  await expect(slip(page).getByRole("button", { name: /^When I get to/ })).toBeVisible();
  await expect(slip(page).getByRole("link", { name: "Give it one" })).toHaveCount(0);
});
