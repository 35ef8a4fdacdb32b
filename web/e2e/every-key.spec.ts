import type { Page } from "@playwright/test";
import { keyHelp } from "../src/words/keys";
import { changes, expect, test, visit } from "./tincup";

/** Every key that prints, and those that `?` lists besides; Esc and Ctrl are walked elsewhere. */
const everyKey = [
  ..."abcdefghijklmnopqrstuvwxyz0123456789[]<>+-./?,;'=",
  ...["Space", "Delete", "Shift+P", "Shift+M", "Shift+X", "Shift+2", "Shift+ArrowDown"],
  ...["ArrowUp", "ArrowDown", "ArrowLeft", "ArrowRight"],
];

/** The keys that `?` lists in some groups, as they are pressed. */
function listed(...groups: string[]): Set<string> {
  const arrows: Record<string, string> = {
    "↑": "ArrowUp",
    "↓": "ArrowDown",
    "←": "ArrowLeft",
    "→": "ArrowRight",
  };
  const keys = new Set<string>();
  for (const k of keyHelp.filter((h) => groups.includes(h.group)))
    for (const written of k.keys) {
      const key = written.replace(/[↑↓←→]/, (a) => arrows[a]!).replace(" ", "+");
      if (key === "…")
        for (const digit of "123456789") keys.add(keys.has("Shift+1") ? `Shift+${digit}` : digit);
      keys.add(key);
    }
  return keys;
}

const loans = async (url: string) => {
  const overview = (await (await fetch(`${url}/api/overview`)).json()) as {
    shelves: { lists: { id: string; name: string }[] }[];
  };
  return overview.shelves.flatMap((s) => s.lists).find((l) => l.name === "Loans")!.id;
};
async function anEmptyList(url: string) {
  const answer = await fetch(`${url}/api/lists`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ name: "Nothing yet" }),
  });
  return ((await answer.json()) as { id: string }).id;
}
const second = (page: Page) => page.locator("main [data-todo]").nth(1).focus();

/** The things that keys may be pressed on: how one comes there, and which groups of `?` are about them. */
const kinds: {
  kind: string;
  path: (url: string) => string | Promise<string>;
  come: (page: Page) => Promise<unknown>;
  groups: string[];
  /** How many of the to-dos of the demo a change may be about. */
  acts: "one" | "chosen" | "none";
}[] = [
  {
    kind: "row",
    path: async (url) => `/list/${await loans(url)}`,
    come: second,
    groups: ["On a row", "In a list"],
    acts: "one",
  },
  {
    kind: "card",
    path: async (url) => `/list/${await loans(url)}?shape=columns`,
    come: second,
    groups: ["On a row", "In a list", "In columns"],
    acts: "one",
  },
  {
    kind: "slip of the week",
    path: () => "/week",
    come: second,
    groups: ["On a row", "In the week"],
    acts: "one",
  },
  {
    kind: "event of the week",
    path: () => "/week",
    come: (page) => page.locator("main [data-event]").first().focus(),
    groups: ["On a row", "In a list", "In the week"],
    acts: "none",
  },
  {
    kind: "heading",
    path: () => "/today",
    come: (page) => page.locator("main .head button").first().focus(),
    groups: ["On a row", "In a list"],
    acts: "one",
  },
  {
    kind: "chosen rows",
    path: async (url) => `/list/${await loans(url)}`,
    come: async (page) => {
      await second(page);
      await page.keyboard.press("x");
      await page.keyboard.press("Shift+ArrowDown");
      await expect(page.locator("main .chosen")).toHaveCount(2);
    },
    groups: ["On a row", "In a list"],
    acts: "chosen",
  },
  {
    kind: "empty sheet",
    path: async (url) => `/list/${await anEmptyList(url)}`,
    come: (page) => expect(page.getByText("An empty list")).toBeVisible(),
    groups: ["On a row", "In a list"],
    acts: "none",
  },
];
/** Moving about where there is nothing to go to is no act. */
const moving = /^(Shift\+)?Arrow|^[jk]$/;

/** All that a person sees or could lose by a key, but for what only moves with the focus. */
const seen = (page: Page) =>
  page.evaluate(() => {
    const active = document.activeElement;
    const row =
      active?.closest<HTMLElement>("[data-todo]")?.dataset.todo ?? active?.className ?? "";
    return {
      path: location.pathname,
      /** The title of the current thing, as History quotes the beginning of it. */
      on:
        (
          document.querySelector("main [data-todo]:focus, main [data-todo].current") ??
          document.querySelector("main [data-todo]")
        )
          ?.querySelector(".title, .name")
          ?.textContent?.replace(/^Priority \w+\. /, "")
          .trim()
          .slice(0, 24) ?? "",
      focus: `${active?.tagName} ${row}`,
      chosen: document.querySelectorAll("main .chosen").length,
      layers: [...document.querySelectorAll<HTMLElement>("[data-layer]")]
        .map((l) => l.dataset.layer ?? "")
        .filter((l) => l !== "ring" && l !== "toast"),
      messages: [...document.querySelectorAll(".toast")].map((t) => t.textContent ?? ""),
      cups: document.querySelectorAll("main [aria-expanded=true]").length,
      shown: document.querySelectorAll("main [data-todo]").length,
    };
  });

for (const { kind, path, come, groups, acts } of kinds)
  test(`every key on a ${kind}: it acts as ? says or says why not, and nothing else changes`, async ({
    page,
    demo,
    complaints,
  }) => {
    test.setTimeout(180_000);
    const known = listed("Everywhere", "Go to", "Many at once", ...groups);
    const at = demo.url + (await path(demo.url));
    const fresh = async () => {
      await visit(page, at);
      await page.locator("main").first().waitFor();
      await come(page);
    };
    /** Everything that a key opened is put away, and what the key stood on comes again. */
    const back = async (gone: boolean) => {
      if (gone) return fresh();
      await page
        .locator(".toast button")
        .last()
        .evaluateAll((all) => {
          for (const close of all) (close as HTMLElement).click();
        });
      for (let i = 0; i < 4; i++) {
        const { layers, chosen } = await seen(page);
        if (!layers.length && !chosen && i > 0) break;
        await page.keyboard.press("Escape");
        await page.waitForTimeout(50);
      }
      await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
      await come(page);
    };
    const faults: string[] = [];
    await fresh();
    for (const key of everyKey) {
      const before = await seen(page);
      const revision = (await changes(demo.url))[0]?.revision ?? 0;
      await page.keyboard.press(key);
      const until = Date.now() + (known.has(key) ? 1500 : 150);
      let now = before;
      let says: string[] = [];
      do {
        await page.waitForTimeout(60);
        now = await seen(page);
        says = (await changes(demo.url)).filter((c) => c.revision > revision).map((c) => c.says);
      } while (
        JSON.stringify(now) === JSON.stringify(before) &&
        !says.length &&
        Date.now() < until
      );
      const stirred = JSON.stringify(now) !== JSON.stringify(before) || says.length > 0;
      if (known.has(key) && !stirred && !moving.test(key))
        faults.push(`${key} does nothing and does not say why`);
      if (!known.has(key) && stirred)
        faults.push(`${key} is not listed, and ${says.join() || JSON.stringify(now)}`);
      if (says.length > 1) faults.push(`${key} did ${says.length} things: ${says.join("; ")}`);
      if (acts === "one" && says.some((said) => !before.on || !said.includes(before.on)))
        faults.push(`${key} acted on another than “${before.on}”: ${says.join()}`);
      if (acts === "none" && says.length) faults.push(`${key} changed something: ${says.join()}`);
      if (acts === "chosen" && says.some((s) => !s.includes("2 to-dos")))
        faults.push(`${key} acted on others than the chosen: ${says.join()}`);
      if (says.length)
        await demo.post("/api/undo", { change: (await changes(demo.url))[0]?.revision });
      if (stirred) await back(now.path !== before.path);
    }
    complaints.length = 0; // rows that went with what was undone
    expect(faults).toEqual([]);
  });
