// Takes the pictures in docs/screenshots from the demo, standing still at one
// moment until the bell has its picture. Run it with make screenshots.
import { spawn } from "node:child_process";
import { mkdtempSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium } from "@playwright/test";

const root = new URL("..", import.meta.url).pathname;
const folder = mkdtempSync(join(tmpdir(), "tincup-shots-"));
const clock = join(folder, "clock");
function setClock(wall) {
  writeFileSync(`${clock}.next`, wall);
  renameSync(`${clock}.next`, clock);
}
setClock("2026-11-24T09:10:00");
const server = spawn(
  join(root, "bin/tincup"),
  ["demo", "--quiet", "--db", join(folder, "demo.db"), "--addr", "127.0.0.1:0"].concat([
    "--clock-file",
    clock,
    "--zone",
    "Europe/Lisbon",
  ]),
  { stdio: ["ignore", "pipe", "inherit"] },
);
const url = await new Promise((resolve) => {
  let said = "";
  server.stdout.on("data", (chunk) => {
    said += chunk;
    const found = /Tin Cup is at (http:\S+)/.exec(said);
    if (found) resolve(found[1]);
  });
});
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
});

const desk = { width: 1280, height: 800 };
const phone = { width: 390, height: 844 };
const shots = [
  { name: "today", path: "/today" },
  { name: "week", path: "/week" },
  { name: "level", path: "/week", button: "Level the week" },
  { name: "review", path: "/review/weekly" },
  { name: "upcoming", path: "/upcoming" },
  {
    name: "list",
    link: "Opening evening",
    line: "Email the caterer by Friday about the glasses, high",
  },
  { name: "ready", path: "/ready", button: "Show why" },
  { name: "projects", path: "/projects" },
  { name: "columns", path: "/today", link: "Museum by status" },
  { name: "two-by-two", path: "/ready?shape=two-by-two" },
  { name: "search", path: "/search?q=lamp" },
  {
    name: "builder",
    path: "/view/new?name=Calls+I+can+make+this+week",
    filter: (tag) => [
      { field: "tag", op: "any-of", values: [tag("calls")] },
      { field: "tag", op: "none" },
      { field: "due", op: "within-next", days: 7 },
      { field: "repeating", op: "no" },
    ],
  },
  { name: "make-room", path: "/today", choose: [1, 8], press: "s" },
  {
    name: "capture",
    path: "/today",
    type: "Order mount board by Friday at 4 in Night Signals high 20 min #suppliers, ask the framer",
  },
  { name: "settings", path: "/settings" },
  { name: "dark", path: "/today", open: "Confirm opening evening", colorScheme: "dark" },
  { name: "phone", path: "/today", viewport: phone },
  { name: "places", path: "/here", at: [43.41, -9.62] },
  { name: "bell", path: "/today", clock: "2026-11-24T09:14:00", button: /^Bell: 2/ },
];
/** Those that are named on the command line alone, or all. */
const named = process.argv.slice(2);
for (const shot of shots) {
  if (named.length && !named.includes(shot.name)) continue;
  const context = await browser.newContext({
    viewport: shot.viewport ?? desk,
    colorScheme: shot.colorScheme ?? "light",
  });
  const page = await context.newPage();
  let address = url + (shot.path ?? "/today");
  if (shot.filter) {
    const { tags } = await (await fetch(`${url}/api/overview`)).json();
    const all = shot.filter((name) => tags.find((t) => t.name === name).id);
    address += `&filter=${encodeURIComponent(JSON.stringify({ filter: { all } }))}`;
  }
  if (shot.clock) setClock(shot.clock);
  if (shot.at) {
    const [latitude, longitude] = shot.at;
    await fetch(`${url}/api/here`, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify({ latitude, longitude, accuracy: 20 }),
    });
  }
  await page.goto(address);
  await page
    .locator("main [data-todo], main li, main .verdict, main [data-setting]")
    .first()
    .waitFor();
  if (shot.button) await page.getByRole("button", { name: shot.button }).click();
  if (shot.link) await page.getByRole("link", { name: shot.link }).last().click();
  if (shot.go) {
    await page.locator("main").getByRole("link", { name: shot.go }).click();
    await page.locator("main [data-todo]").first().waitFor();
  }
  if (shot.choose) {
    const [first, last] = shot.choose;
    const row = (n) => page.locator("main [data-todo]").nth(n);
    await row(first).click({ modifiers: ["Control"] });
    await row(last).click({ modifiers: ["Shift"] });
  }
  if (shot.open) await page.locator("main [data-todo]", { hasText: shot.open }).click();
  await page.waitForTimeout(shot.press ? 900 : 0); // choosers come after the first view
  if (shot.type) {
    await page.keyboard.press("n");
    await page.keyboard.type(shot.type);
  }
  if (shot.line) {
    await page.getByRole("combobox", { name: /^Put into/ }).click();
    await page.keyboard.type(shot.line);
  }
  if (shot.press) await page.keyboard.press(shot.press);
  await page.mouse.move(0, 0);
  await page.waitForTimeout(500);
  await page.screenshot({ path: join(root, `docs/screenshots/${shot.name}.png`) });
  if (shot.at)
    await fetch(`${url}/api/bell/seen`, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: '{"all":true}',
    });
  await context.close();
}
await browser.close();
server.kill();
rmSync(folder, { recursive: true, force: true });
