import type { Page } from "@playwright/test";
import { keyHelp } from "../src/words/keys";
import { layers } from "../src/words/layers";
import {
  changes,
  expect,
  group,
  history,
  index,
  latest,
  row,
  slip,
  test,
  toast,
  visit,
} from "./tincup";

/** What someone types who believes the line for words has the focus. */
async function typeOn(page: Page) {
  await page.keyboard.type("in 3 days x h 5 p e d l t");
  await page.keyboard.press("Space");
  await page.keyboard.press("Delete");
}

const floating = (page: Page) =>
  page.locator("[data-layer]:not([data-layer=toast], [data-layer=ring])");

/** What stands on the page behind. */
const behind = (page: Page) =>
  page.evaluate(() => {
    const rows = [...document.querySelectorAll("main [data-todo]")];
    return [
      location.pathname,
      document.querySelector<HTMLInputElement>("header.bar input")?.value,
      ...rows.map((r) => `${r.className.replace(/ ?current/, "")} ${(r as HTMLElement).innerText}`),
    ].join("\n");
  });

/** Types on what is open, puts it away, and holds the page behind to what it was. */
async function holds(page: Page, url: string, seen: Set<string>, what: string) {
  await expect(floating(page).last(), what).toBeVisible();
  const layer = await floating(page).last().getAttribute("data-layer");
  seen.add(layer ?? "");
  const before = await behind(page);
  const revision = (await changes(url))[0]?.revision;
  await typeOn(page);
  await page.keyboard.press("Escape");
  await expect(floating(page), `${what} is put away by Esc`).toHaveCount(0);
  const since = (await changes(url)).filter((c) => c.revision > (revision ?? 0));
  expect(
    since.map((c) => c.says),
    what,
  ).toEqual([]);
  expect(await behind(page), what).toBe(before);
  await expect(page.locator("main .chosen"), what).toHaveCount(0);
}

/** Everything in sight that says it opens something, each sort of it once. */
const openers = (page: Page, within: string) =>
  page.evaluate((within) => {
    const all = [...document.querySelectorAll<HTMLButtonElement>(`${within} [aria-haspopup]`)];
    const sorts = new Set<string>();
    return all.flatMap((b) => {
      const part = b.closest("[data-slip], nav, main, header, form")?.tagName;
      const field = b.closest("dd")?.previousElementSibling?.textContent ?? "";
      const name = (b.ariaLabel ?? b.textContent ?? "").trim().replace(/\s+/g, " ");
      const sort = [part, b.className, field, name.replace(/(for|of) .*/, "")].join(" ");
      if (sorts.has(sort) || b.disabled || !b.checkVisibility()) return [];
      sorts.add(sort);
      return [{ name, field }];
    });
  }, within);

test("no key reaches what lies behind what is open, whatever the page can open", async ({
  page,
  demo,
  complaints,
}) => {
  test.setTimeout(240_000);
  page.setDefaultTimeout(15_000);
  const seen = new Set<string>();
  const overview = (await (await fetch(`${demo.url}/api/overview`)).json()) as {
    shelves: { lists: { id: string; name: string; checklist?: boolean }[] }[];
    views: { id: string }[];
    tags: { id: string }[];
    people: { id: string }[];
  };
  const lists = overview.shelves.flatMap((s) => s.lists);
  const checklist = lists.find((l) => l.checklist) ?? lists[0];
  const screens: [string, string, ((page: Page) => Promise<void>)?][] = [
    [
      "/today",
      "body",
      async (p) => {
        await row(p, "Send loan agreement").click();
        await expect(slip(p)).toContainText("Registrar");
      },
    ],
    [
      "/today",
      "header.bar",
      async (p) => {
        await p
          .getByRole("combobox", { name: "Put something in" })
          .fill("Order board by Friday 4pm, in Loans, high, every week");
        await expect(p.locator("[data-field=list]")).toBeVisible();
      },
    ],
    [`/list/${lists[0]?.id}`, "main"],
    [`/list/${checklist?.id}`, "main"],
    [`/view/${overview.views[0]?.id}`, "main"],
    [`/tag/${overview.tags[0]?.id}`, "main"],
    [`/person/${overview.people[0]?.id}`, "main"],
    ["/ready?shape=two-by-two", "main"],
    ["/search?q=lamp", "main"],
    ["/tags", "main"],
    ["/people", "main"],
    ["/away", "main"],
    ["/done", "main"],
    ["/week", "main", (p) => p.getByRole("button", { name: "Its hours…" }).waitFor()],
  ];
  for (const [path, within, prepare] of screens) {
    const come = async () => {
      await page.mouse.move(0, 0);
      await visit(page, demo.url + path);
      // A row's menu comes with the pointer.
      const first = page.locator("main [data-todo]").first();
      if (!["/tags", "/people", "/away", "/week"].includes(path))
        await first.hover({ position: { x: 300, y: 12 } });
      await prepare?.(page);
    };
    await come();
    for (const { name, field } of await openers(page, within)) {
      const what = `${path}: ${field} ${name}`;
      const button = page
        .locator(`${within} [aria-haspopup]`)
        .and(page.getByRole("button", { name, exact: true }))
        .first();
      await button.click();
      const more = await page.getByRole("menuitem", { name: /…$/ }).allTextContents();
      await holds(page, demo.url, seen, what);
      for (const item of more) {
        await button.click();
        const told = (await page.locator(".toast").allInnerTexts()).join("\n");
        await page.getByRole("menuitem", { name: item.trim(), exact: true }).click();
        // Some go to a page of their own, name something in the index, or say why not.
        await expect
          .poll(
            async () =>
              (await floating(page).and(page.locator(":not([data-layer=menu])")).count()) > 0 ||
              (await page.getByRole("menu", { name: "Save as" }).count()) > 0 ||
              new URL(page.url()).pathname !== path.split("?")[0] ||
              (await page.evaluate(() => document.activeElement instanceof HTMLInputElement)) ||
              (await page.locator(".toast").allInnerTexts()).join("\n") !== told,
            `${what}, ${item.trim()}`,
          )
          .toBe(true);
        if (await floating(page).count())
          await holds(page, demo.url, seen, `${what}, ${item.trim()}`);
        else if (new URL(page.url()).pathname !== path.split("?")[0]) await come();
      }
    }
  }
  // By keys, on a row: each that opens something says so in the list of keys.
  await visit(page, `${demo.url}/today`);
  for (const k of keyHelp.filter((h) => h.opens && h.group !== "In the week")) {
    await row(page, "Meter reading").focus();
    await page.keyboard.press((k.keys[0] ?? "").replace(" ", "+"));
    await holds(page, demo.url, seen, `the key ${k.keys[0]}`);
  }
  await page.getByRole("combobox", { name: "Put something in" }).focus();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData("text/plain", "Order glass\nRing the framer");
    document.activeElement?.dispatchEvent(
      new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await holds(page, demo.url, seen, "several lines pasted");
  await page.goto(`${demo.url}/settings#files`);
  await page.locator("#files input[type=file]").setInputFiles({
    name: "lamps.csv",
    mimeType: "text/csv",
    buffer: Buffer.from("title\nCount the lamps\n"),
  });
  await holds(page, demo.url, seen, "a file brought in");
  await page.goto(`${demo.url}/today`);
  demo.setClock("2026-11-24T09:12:00"); // something rings
  await page.getByRole("article").getByRole("button", { name: "Later…" }).click();
  await holds(page, demo.url, seen, "the times of a ring");
  complaints.length = 0; // words that are no date yet are refused, in words
  expect(
    [...layers].filter((l) => !seen.has(l)),
    "layers that nothing here opened",
  ).toEqual([]);
});

test("in a message that has the focus, keys are the message's", async ({ page, demo }) => {
  await visit(page, `${demo.url}/today`);
  await row(page, "Meter reading").focus();
  await page.keyboard.press("p");
  const undo = page.locator(".toast").getByRole("button", { name: "Undo" });
  await undo.focus();
  const before = await latest(demo.url);
  await page.keyboard.type("xh5pd");
  await page.keyboard.press("Delete");
  expect(await latest(demo.url)).toBe(before);
  await expect(page.locator("main .chosen")).toHaveCount(0);
  await page.waitForTimeout(9000); // longer than a message is shown
  await expect(undo).toBeFocused();
  await page.keyboard.press("Escape");
  await expect(page.locator(".toast")).toHaveCount(0);
});

test("g finds any list, view, tag, person or page; what is typed on reaches no row", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  const title = page.getByRole("heading", { level: 1 });
  const start = await latest(demo.url);
  for (const [letters, name] of [
    ["gra\n", "Grant report"],
    ["sho\n", "Short things for the museum"],
    ["sup\n", "suppliers"],
    ["reg\n", "Registrar"],
    ["his\n", "History"],
    ["upc\n", "Upcoming"],
  ] as const) {
    await page.keyboard.type(`g${letters}`);
    await expect(title).toContainText(name);
    await expect(floating(page)).toHaveCount(0);
  }
  await page.keyboard.type("gnight signals\n");
  await expect(title).toHaveText("Night Signals");
  await page.keyboard.type("gtod\n");
  await expect(title).toContainText("Today");
  await page.waitForTimeout(100);
  await page.keyboard.press("j");
  await expect(page.locator("main .row.current")).toBeFocused();
  await page.keyboard.press("g");
  await page.keyboard.type("zzz");
  await expect(page.getByText("Nothing has these letters.")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(floating(page)).toHaveCount(0);
  expect((await changes(demo.url)).filter((c) => c.revision > start)).toEqual([]);
});

test("the finder leaves by Enter alone: wrong words act on no row; it finds what one does", async ({
  page,
  demo,
}) => {
  test.setTimeout(600_000);
  await visit(page, `${demo.url}/today`);
  const start = await latest(demo.url);
  const line = page.getByRole("combobox", { name: "Go to" });
  let seed = 3;
  const random = (n: number) => (seed = (seed * 16807) % 2147483647) % n;
  // Words begin as names do, and go wrong on the way.
  const names = [
    "night signals",
    "labels",
    "weekly review",
    "registrar",
    "calls",
    "zinc",
    "quince",
  ];
  for (let n = 0; n < Number(process.env.WORDS ?? 12); n++) {
    const name = names[random(names.length)]!;
    const wrong = Array.from({ length: 3 + random(4) }, () => "hxpdemb18 0sqz"[random(14)]).join(
      "",
    );
    const word = `${name.slice(0, 1 + random(name.length))}${wrong}`;
    await page.keyboard.type(`g${word}`, { delay: 30 });
    await expect(line, word).toHaveValue(word);
    await expect(page.getByText("Nothing has these letters.")).toBeVisible();
    await page.keyboard.press("Enter");
    await expect(line).toBeFocused();
    await page.keyboard.press("Escape");
    await expect(floating(page)).toHaveCount(0);
    expect(await latest(demo.url), word).toBe(start);
  }
  await page.keyboard.type("gtime zo\n");
  await expect(page.getByRole("combobox", { name: "Time zone" })).toBeFocused();
  await page.keyboard.press("Escape");
  for (const [letters, at] of [
    ["weekly r", /review\/weekly$/],
    ["everything out", /settings#everything$/],
    ["new view", /view\/new/],
  ] as const) {
    await visit(page, `${demo.url}/cup`);
    await page.keyboard.type(`g${letters}\n`);
    await expect(page).toHaveURL(at);
  }
  // A list is made from anywhere, typed ahead of each dialog, and takes what is typed next.
  await visit(page, `${demo.url}/today`);
  await page.keyboard.type("gnew li\nCrates to mend\n");
  await expect(toast(page, "New list: “Crates to mend”")).toBeVisible();
  await expect(page.getByRole("combobox", { name: "Put into Crates to mend" })).toBeFocused();
  await page.keyboard.type("Crate 7\n");
  await expect(row(page, "Crate 7")).toBeVisible();
});

test("many, and what is closed or archived, are asked for with their numbers", async ({
  page,
  tincup,
}) => {
  const lines = Array.from({ length: 21 }, (_, i) => `Crate ${i + 1}`);
  const list = await tincup.post("/api/lists", { name: "Crates" });
  for (const title of lines) await tincup.post("/api/todos", { title, list: list.id });
  await visit(page, `${tincup.url}/list/${list.id}`);
  const start = (await changes(tincup.url))[0]?.revision ?? 0;
  const told = async () => (await changes(tincup.url)).filter((c) => c.revision > start);
  const choose = async (n: number) => {
    await page.locator("main [data-todo]").first().focus();
    for (let i = 1; i < n; i++) await page.keyboard.press("Shift+ArrowDown");
    await expect(page.getByText(`${n} chosen`)).toBeVisible();
  };
  await choose(21);
  await page.keyboard.press("Delete");
  const dialog = page.getByRole("dialog", { name: "Put 21 to-dos in the bin?" });
  await expect(dialog).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(dialog).toBeHidden();
  expect(await told()).toEqual([]);
  await page.keyboard.press("Delete");
  await expect(dialog).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.locator("main [data-todo]")).toHaveCount(0);
  await page.keyboard.press("Control+z");
  await expect(page.locator("main [data-todo]")).toHaveCount(21);
  // Twenty are changed at once; with a closed one among them it is asked.
  await choose(20);
  await page.keyboard.press("3");
  await expect(toast(page, "Planned")).toBeVisible();
  // In a checklist what is ticked stays, however long the rest takes.
  await tincup.patch(`/api/lists/${list.id}`, { checklist: true });
  await row(page, "Crate 21").focus();
  await page.keyboard.press("Space");
  await page.keyboard.press("k");
  await expect(group(page, "ticked")).toContainText("Crate 21");
  await row(page, "Crate 20").click({ modifiers: ["Control"] });
  await row(page, "Crate 21").click({ modifiers: ["Control"] });
  await expect(page.getByText("2 chosen")).toBeVisible();
  await page.keyboard.press("Delete");
  await expect(page.getByRole("dialog")).toContainText("Of these, 1 is closed already");
  await expect(index(page)).toBeVisible();
  await expect(slip(page)).toHaveCount(0);
});

test("a key that is pressed as another window takes the row away is not for its neighbour", async ({
  page,
  demo,
}) => {
  for (const path of ["/today", "/week"]) {
    await visit(page, `${demo.url}${path}`);
    await expect(page.locator("main [data-todo]").first()).toBeVisible();
    await page.keyboard.press("j");
    const focused = () =>
      page.evaluate(
        () => document.activeElement?.closest<HTMLElement>("[data-todo]")?.dataset.todo,
      );
    await expect.poll(focused).toBeTruthy();
    const id = (await focused())!;
    // Pressed at the very moment at which its neighbour has the focus.
    await page.evaluate((gone) => {
      const press = () => {
        const to = document.activeElement?.closest<HTMLElement>("[data-todo]");
        if (!to || to.dataset.todo === gone) return void setTimeout(press, 5);
        to.dispatchEvent(
          new KeyboardEvent("keydown", {
            key: " ",
            code: "Space",
            bubbles: true,
            cancelable: true,
          }),
        );
        document.body.dataset.pressed = to.dataset.todo;
      };
      delete document.body.dataset.pressed;
      press();
    }, id);
    await demo.remove(`/api/todos/${id}`);
    await expect.poll(() => page.evaluate(() => document.body.dataset.pressed)).toBeTruthy();
    await page.waitForTimeout(600);
    expect((await history(demo.url))[0]).toMatch(/^In the bin: /);
    // A moment later it is.
    await page.keyboard.press(" ");
    await expect.poll(async () => (await history(demo.url))[0]).toMatch(/^Done: /);
  }
});

test("ten to-dos are chosen by keys and set by the bar, each field by one change", async ({
  page,
  tincup,
}) => {
  const list = await tincup.post("/api/lists", { name: "Crates" });
  for (let i = 0; i < 10; i++)
    await tincup.post("/api/todos", { title: `Crate ${i}`, list: list.id });
  await visit(page, `${tincup.url}/list/${list.id}`);
  await page.locator("main [data-todo]").first().focus();
  await page.keyboard.press("x");
  await page.keyboard.press("Control+a");
  const bar = page.getByRole("toolbar", { name: "The rows that are chosen" });
  const start = await latest(tincup.url);
  let changes = 0;
  const set = async (button: string, keys: string) => {
    await expect(bar).toContainText("10 chosen");
    await expect(bar.getByRole("button", { name: "Choose all" })).toHaveCount(0);
    await bar.getByRole("button", { name: button, exact: true }).click();
    // Enter alone changes nothing that nobody chose.
    await page.keyboard.type(keys);
    await page.keyboard.press("Enter");
    changes++;
    await expect.poll(() => latest(tincup.url), button).toBe(start + changes + made);
    // The rows are let go once they are set: all are chosen anew, by a press.
    await page.locator("main [data-todo]").first().focus();
    await page.keyboard.press("x");
    await bar.getByRole("button", { name: "Choose all" }).click();
  };
  let made = 0;
  await set("Start", "Thursday");
  await set("Due", "Friday");
  made = 1; // a new person
  await set("Who", "waiting on Ines");
  await set("Place", "Store room");
  await set("Takes", "20");
  const view = (await (await fetch(`${tincup.url}/api/lists/${list.id}/view`)).json()) as {
    groups: { rows: { todo: Record<string, unknown> }[] }[];
  };
  const todos = view.groups.flatMap((g) => g.rows.map((r) => r.todo));
  expect(todos).toHaveLength(10);
  for (const t of todos)
    expect(t).toMatchObject({
      start: "2026-11-26",
      due: "2026-11-27",
      person: { role: "waiting on" },
      place: "Store room",
      estimate: 20,
    });
});
