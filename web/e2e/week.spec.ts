import type { Todo } from "@/server/client";
import { type Page } from "@playwright/test";
import { cup, expect, group, history, row, slip, test, toast, visit } from "./tincup";

const setting = (page: Page, name: string) => page.locator(`[data-setting="${name}"]`);

test("hours set: the rail and Today's sentence follow, in another window too", async ({
  page,
  context,
  demo,
  complaints,
}) => {
  await visit(page, `${demo.url}/settings`);
  const other = await context.newPage();
  await other.goto(`${demo.url}/today`);
  const holds = other.locator("header .holds");
  await expect(holds).toContainText(/of work .*left/);
  const before = await holds.textContent();

  // Tuesday is today: off, by keys alone, and told.
  const tuesday = setting(page, "hoursTuesday").getByRole("textbox");
  await tuesday.fill("none");
  await tuesday.press("Enter");
  await expect(toast(page, "hours on Tuesdays: 09:00-12:30, 13:30-17:30 → none")).toBeVisible();
  await expect(holds).toContainText("no working hours left");
  await expect(cup(other, "2026-11-24")).toHaveAccessibleName(/outside working hours/);

  // Hours that overlap are refused with what would be right, and nothing is lost.
  await tuesday.fill("09:00-12:00, 11:00-13:00");
  await tuesday.press("Enter");
  await expect(toast(page, "stretches such as 09:00-12:30")).toBeVisible();
  await expect(tuesday).toHaveValue("09:00-12:00, 11:00-13:00");
  await expect(tuesday).toHaveAttribute("aria-invalid", "true");
  complaints.length = 0; // of the hours that were refused
  await tuesday.press("Escape");
  await expect(tuesday).toHaveValue("none");

  await tuesday.evaluate((el) => (el as HTMLElement).blur());
  await page.keyboard.press("ControlOrMeta+z");
  await expect(holds).toHaveText(before ?? "");
  await expect(tuesday).toHaveValue("09:00-12:30, 13:30-17:30");

  // As people type them.
  await tuesday.fill("9 – 12, 13-17");
  await tuesday.press("Enter");
  await expect(tuesday).toHaveValue("09:00-12:00, 13:00-17:00");
});

test("a day's head says its hours, and one over its cup says by how much", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/upcoming`);
  const wednesday = group(page, "day").filter({ hasText: "Wednesday 25 November" });
  await expect(wednesday).toContainText(/\d h( \d\d)? of 7 h|more than its 7 h/);
  await expect(cup(page, "2026-11-25")).toHaveAccessibleName(/ 7 h/);
});

test("a due that cannot be met warns while it is chosen, by keys, by words and in the slip", async ({
  page,
  demo,
  complaints,
}) => {
  await visit(page, `${demo.url}/today`);
  const title = "Ring the framer about mount board";
  await row(page, title).press("Enter");
  await expect(slip(page)).toBeVisible();
  await row(page, title).focus();
  await page.keyboard.type("m9h");
  await page.keyboard.press("Enter");
  await expect(slip(page)).toContainText("9 h");
  await row(page, title).focus();
  await page.keyboard.press("d");
  const chooser = page.getByRole("dialog", { name: "Choose the due" });
  const warning = chooser.locator(".slack");
  // The focus is on Today; arrows go on, and each day says what can be done by then.
  await expect(warning).toHaveText(/9 h of work; needs .* outside your working hours/);
  for (let n = 0; n < 7; n++) await page.keyboard.press("ArrowDown");
  await expect(warning).toHaveText(/9 h of work, .* to spare/);
  await page.keyboard.type("today 17:00");
  await expect(warning).toHaveText(/9 h of work; only 7 h 50 left until it is due/);
  await page.keyboard.press("Enter");
  await expect(chooser).toBeHidden();
  await expect(slip(page).locator(".short")).toHaveText(/only 7 h 50 left until it is due/);
  complaints.length = 0; // of words that were not whole yet
  expect((await history(demo.url))[0]).toContain("due: none → Tue 24 Nov 17:00");

  // The minutes that would be given say the same; nothing is kept before Enter.
  await row(page, title).focus();
  await page.keyboard.type("m10");
  const minutes = page.locator("[data-layer='minutes']");
  await expect(minutes.locator(".slack")).toHaveText(/^10 min of work, .* to spare$/);
  await page.keyboard.type("h");
  await expect(minutes.locator(".slack.short")).toHaveText(/^10 h of work; only/);
  await page.keyboard.press("Escape");
  expect((await history(demo.url))[0]).toContain("due: none → Tue 24 Nov 17:00");
});

test("minutes given to twelve rows by keys alone, typed ahead; one skipped, and what History says", async ({
  page,
  demo,
  complaints,
}) => {
  await visit(page, `${demo.url}/ready`);
  await page.keyboard.press("j");
  await page.keyboard.press("Shift+M");
  const chooser = page.locator("[data-layer='minutes']");
  await expect(chooser).toContainText(/1 of \d\d/);
  // Enter alone changes nothing and goes on.
  await page.keyboard.press("Enter");
  await expect(chooser).toContainText(/2 of \d\d/);
  for (let n = 1; n <= 12; n++) {
    await page.keyboard.type(n % 2 ? "1h15" : "20");
    await page.keyboard.press("Enter");
    await expect(chooser).toContainText(`${n + 2} of`);
  }
  await page.keyboard.press("Escape");
  await expect(chooser).toBeHidden();
  const given = async () =>
    (await history(demo.url)).filter((s) => /, takes: none → (20 min|1 h 15)/.test(s)).length;
  await expect.poll(given).toBe(12);
  // The server away: what was not kept is asked for again, and nothing is passed over.
  await page.keyboard.press("Shift+M");
  await expect(chooser).toContainText(/1 of \d\d/);
  await page.context().setOffline(true);
  await page.keyboard.type("20");
  await page.keyboard.press("Enter");
  await expect(toast(page, "Nothing was changed")).toBeVisible();
  await expect(chooser).toContainText(/1 of \d\d/);
  await page.context().setOffline(false);
  await page.keyboard.type("1h15");
  await page.keyboard.press("Enter");
  await expect(chooser).toContainText(/2 of \d\d/);
  await page.keyboard.press("Escape");
  await expect.poll(given).toBe(13);
  complaints.length = 0; // of the connection that was away

  // Typing fast and ahead of the page: keys reach the chooser, and no row behind it.
  await page.keyboard.press("j");
  await page.keyboard.type("m45");
  await page.keyboard.press("Enter");
  await expect(chooser).toBeHidden();
  await expect.poll(async () => (await history(demo.url))[0]).toMatch(/45 min/);
  expect(await given()).toBe(13);
});

test("minutes for many: Enter alone takes none away, and a press beside it ticks nothing", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  const start = await history(demo.url);
  await row(page, "Ring the framer").focus();
  await page.keyboard.press("x");
  await page.keyboard.press("j");
  await page.keyboard.press("x");
  await page.keyboard.press("m");
  const chooser = page.locator("[data-layer='minutes']");
  await expect(chooser.getByRole("option").last()).toHaveText(/No estimate/);
  await expect(chooser.locator("[role=option][aria-selected=true]")).toHaveCount(0);
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await expect(chooser).toBeHidden();
  await page.keyboard.press("m");
  await expect(chooser).toBeVisible();
  // On the box of a row that lies free of the chooser.
  const open = (await chooser.boundingBox())!;
  let free: { x: number; y: number } | undefined;
  for (const box of await page.locator("main [data-todo] [role=checkbox]").all()) {
    const at = (await box.boundingBox())!;
    const middle = { x: at.x + at.width / 2, y: at.y + at.height / 2 };
    if (
      middle.y > 160 &&
      middle.y < 780 &&
      (middle.y < open.y - 8 || middle.y > open.y + open.height + 8)
    )
      free = middle;
  }
  expect(free, "a box lies free of the chooser").toBeDefined();
  await page.mouse.click(free!.x, free!.y);
  await expect(chooser).toBeHidden();
  await page.waitForTimeout(300);
  expect(await history(demo.url)).toEqual(start);
});

test("keys on a slip, quick and slow, and undo between them: the plan is what a model says", async ({
  page,
  tincup,
}) => {
  test.setTimeout(240_000);
  const days = ["2026-11-24", "2026-11-25", "2026-11-26", "2026-11-27", "2026-11-28", "2026-11-29"];
  const kinds = [
    { title: "Walk the rooms", due: "2026-11-24", plan: "2026-11-24T10:00/PT1H", estimate: 60 },
    { title: "Oil the hinge", plan: "2026-11-25" },
    { title: "Ring the mill", due: "2026-11-26" },
    { title: "Trim the wicks", plan: "2026-11-24T14:00/PT30M" },
  ];
  let seed = 11;
  const random = (n: number) => (seed = (seed * 16807) % 2147483647) % n;
  for (const kind of kinds) {
    const { id } = (await tincup.post("/api/todos", kind)) as { id: string };
    const stands = async () => {
      const todo = (await (await fetch(`${tincup.url}/api/todos/${id}`)).json()) as Todo;
      return `${todo.plan ?? null} ${todo.estimate ?? null}`;
    };
    const lies = (kind.due ?? kind.plan)!.slice(0, 10);
    const time = /T.*/.exec(kind.plan ?? "")?.[0];
    const length = time?.endsWith("PT1H") ? 60 : 30;
    interface State {
      day?: string;
      timed: boolean;
      minutes: number;
      estimate: number | null;
    }
    const states: State[] = [
      {
        day: kind.plan?.slice(0, 10),
        timed: Boolean(time),
        minutes: length,
        estimate: kind.estimate ?? null,
      },
    ];
    const words = ({ day, timed, minutes, estimate }: State) => {
      const span = minutes % 60 === 0 ? `PT${minutes / 60}H` : `PT${minutes}M`;
      const long =
        minutes > 60 && minutes % 60 ? `PT${Math.floor(minutes / 60)}H${minutes % 60}M` : span;
      return `${day ? (timed ? `${day}${time!.slice(0, 6)}/${long}` : day) : null} ${estimate}`;
    };
    await visit(page, `${tincup.url}/week`);
    const slips = page.locator(`main [data-todo="${id}"]`);
    await slips.first().focus();
    for (let burst = 0; burst < 8; burst++) {
      for (let press = 0; press < 1 + random(4); press++) {
        const now = states.at(-1)!;
        const from = now.day ?? lies;
        const key = [">", "<", "+", "-", "3", "undo", ">", "<"][random(8)]!;
        if (key === "undo") {
          if (states.length === 1) continue;
          await page.keyboard.press("Control+z");
          states.pop();
        } else if (key === ">" || key === "<") {
          const to = days[days.indexOf(from) + (key === ">" ? 1 : -1)];
          if (!to && key === ">") continue;
          await page.keyboard.press(key);
          if (to) states.push({ ...now, day: to });
        } else if (key === "3") {
          if (now.day === "2026-11-26" && !now.timed) continue; // nothing would change
          await page.keyboard.press("3");
          states.push({ ...now, day: "2026-11-26", timed: false });
        } else {
          const lasts = now.timed ? now.minutes : (now.estimate ?? 30);
          const minutes = Math.max(5, lasts + (key === "+" ? 15 : -15));
          if (minutes === lasts || minutes > 120) continue;
          await page.keyboard.press(key);
          const one = now.timed && now.estimate && now.estimate !== now.minutes;
          states.push({
            ...now,
            ...(now.timed && { minutes }),
            ...(!one && { estimate: minutes }),
          });
        }
        if (random(2))
          await expect.poll(stands, `${kind.title} after ${key}`).toBe(words(states.at(-1)!));
      }
      await expect.poll(stands, kind.title).toBe(words(states.at(-1)!));
      await expect(slips.first(), "it stays where it can be seen").toBeVisible();
      await expect(slips.first()).toBeFocused();
      await expect(page.locator("main [data-day]")).toHaveCount(7);
    }
  }
});
