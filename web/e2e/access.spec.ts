import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { expect, index, row, slip, test, visit } from "./tincup";

for (const look of ["light", "dark"] as const) {
  test(`axe finds nothing serious, ${look}`, async ({ page, demo }) => {
    test.setTimeout(600_000); // axe reads some forty screens
    await page.emulateMedia({ colorScheme: look });
    await visit(page, `${demo.url}/today`);
    const check = async (what: string) => {
      const { violations } = await new AxeBuilder({ page }).analyze();
      const found = violations
        .filter((v) => v.impact === "serious" || v.impact === "critical")
        .map((v) => `${what}: ${v.id} ${v.nodes.map((n) => n.html.slice(0, 120)).join(" | ")}`);
      expect(found).toEqual([]);
    };
    for (const view of [
      "today",
      "cup",
      "overdue",
      "ready",
      "waiting",
      "week",
      "review",
      "review/weekly",
      "upcoming",
      "within-a-week",
      "open",
      "projects",
      "comes-round",
      "tags",
      "people",
      "away",
      "history",
      "done",
      "bin",
      "search?q=lamp",
      "today?shape=columns",
      "ready?shape=two-by-two",
      "view/new?from=ready",
      "rail/parked",
      "nowhere",
    ]) {
      await page.goto(`${demo.url}/${view}`);
      await page.locator("main [data-todo], main .state, main li, main .builder").first().waitFor();
      await check(view);
    }
    await page.goto(`${demo.url}/today`);
    await row(page, "Meter reading").click();
    await slip(page).getByLabel("Title").waitFor();
    await check("slip");
    await slip(page).getByRole("button", { name: "Close" }).click();
    for (const key of ["d", "l", "t", "g"]) {
      await row(page, "Meter reading").focus();
      await page.keyboard.press(key);
      await page.locator(".chooser").waitFor();
      await check(`chooser ${key}`);
      await page.keyboard.press("Escape");
      await page.locator(".chooser").waitFor({ state: "detached" });
    }
    demo.setClock("2026-11-24T09:14:00"); // what rings is told of
    await page.getByRole("article").first().waitFor();
    await check("cards");
    await page.getByRole("article").getByRole("button", { name: "Later…" }).first().click();
    await page.getByRole("button", { name: /^In an hour/ }).waitFor();
    await check("later");
    await page.keyboard.press("Escape");
    await page.keyboard.press("a");
    await page.getByRole("button", { name: "All seen" }).waitFor();
    await check("bell");
    await page.getByRole("button", { name: "All seen" }).click();
    await page.keyboard.press("Escape");
    await row(page, "Meter reading").focus();
    await page.keyboard.press("r");
    await page.getByRole("list", { name: "Next dates" }).waitFor();
    await check("repeat editor");
    await page.keyboard.press("Escape");
    await row(page, "Meter reading").focus();
    await page.keyboard.press("x");
    await page.getByRole("toolbar").waitFor();
    await check("bulk bar");
    await page.keyboard.press("s");
    await page.getByRole("dialog", { name: "Make room" }).getByText("it repeats").waitFor();
    await check("make room");
    await page.keyboard.press("Escape");
    await page.keyboard.press("Escape");
    await index(page).getByRole("link", { name: "Opening evening" }).click();
    await page
      .locator("main")
      .getByRole("button", { name: "More for Opening evening" })
      .first()
      .click();
    await page.getByRole("menu").waitFor();
    await check("menu");
    await page.getByRole("menuitem", { name: "Name and colour…" }).click();
    await page.getByRole("radio").first().waitFor();
    await check("ask");
    await page.keyboard.press("Escape");
    await page.goto(`${demo.url}/today`);
    await row(page, "Meter reading").waitFor();
    const line = page.getByRole("combobox", { name: "Put something in" });
    await line.focus();
    await check("sentences to try");
    await line.fill("Order board, by Friday 4pm, due Monday, in Ni, high, #calls");
    await page.locator(".panel .problems").waitFor();
    await check("chips");
    await line.fill("");
    await page.evaluate(() => {
      const clipboardData = new DataTransfer();
      clipboardData.setData("text/plain", "Crates\n  Order, by Friday\n  Pay 31 February");
      document.activeElement!.dispatchEvent(
        new ClipboardEvent("paste", { clipboardData, bubbles: true, cancelable: true }),
      );
    });
    await page
      .getByRole("dialog", { name: "Several at once" })
      .getByText("There is no day")
      .waitFor();
    await check("several at once");
    await page.keyboard.press("Escape");
    await line.blur();
    await page.keyboard.press("?");
    await page.getByRole("heading", { name: "Keys" }).waitFor();
    await check("keys");
    await page.setViewportSize({ width: 390, height: 844 });
    await page.goto(`${demo.url}/today`);
    await row(page, "Meter reading").waitFor();
    await check("phone");
    await page.getByRole("button", { name: "Open the index" }).click();
    await index(page).waitFor();
    await check("phone index");
  });
}

/** Presses Tab from the mark on until the screen ends, and says where the focus was. */
async function tabbed(page: Page) {
  await page.getByRole("link", { name: "Tin Cup" }).focus();
  const seen: string[] = [];
  for (let i = 0; i < 300; i++) {
    await page.keyboard.press("Tab");
    const at = await page.evaluate(() => {
      const el = document.activeElement;
      if (!el || el === document.body) return "";
      const box = el.getBoundingClientRect();
      const name = el.getAttribute("aria-label") ?? el.textContent?.trim() ?? "";
      return `${el.tagName} ${name.slice(0, 40)} ${Math.round(box.x)},${Math.round(box.y)}`;
    });
    if (at === "") break;
    seen.push(at);
  }
  return seen;
}

test("Tab walks the screen to its end, and never gets stuck", async ({ page, demo }) => {
  await visit(page, `${demo.url}/overdue`);
  await row(page, "Pay the allotment rent").click();
  await slip(page).getByLabel("Title").waitFor();
  const seen = await tabbed(page);
  expect(new Set(seen).size).toBe(seen.length);
  for (const part of ["Put something in", "Parked", "The Cup", "Title", "Put in the bin"]) {
    expect(
      seen.some((s) => s.includes(part)),
      `${part} in ${seen.join("\n")}`,
    ).toBe(true);
  }
  expect(seen.length).toBeLessThan(300); // it has come to the end
});

test("targets are at least 24 px, and 200 % zoom needs no sideways scroll", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  const small = await page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>("button, a, input")]
      .filter((el) => el.offsetParent !== null)
      .map((el) => ({ el, box: el.getBoundingClientRect() }))
      .filter(({ box }) => box.width < 24 || box.height < 24)
      .map(({ el }) => el.outerHTML.slice(0, 100)),
  );
  expect(small).toEqual([]);
  await page.setViewportSize({ width: 640, height: 400 });
  const overflow = await page.evaluate(
    () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
  );
  expect(overflow).toBe(0);
});

test("Tab walks the week and a review to their ends", async ({ page, demo }) => {
  for (const [path, parts] of [
    ["week", ["marked by", "Level the week", "Tue 24", "Lay out the hours", "Its hours", "Sun 29"]],
    ["review/weekly", ["Untouched", "List…", "Leave it", "Finish here"]],
  ] as const) {
    await visit(page, `${demo.url}/${path}`);
    await page.locator("main [data-todo]").first().waitFor();
    const seen = await tabbed(page);
    expect(new Set(seen).size, path).toBe(seen.length);
    for (const part of parts) {
      const there = part === "marked by" ? "SELECT" : part;
      expect(
        seen.some((s) => s.includes(there)),
        `${path}: ${part}`,
      ).toBe(true);
    }
  }
});
