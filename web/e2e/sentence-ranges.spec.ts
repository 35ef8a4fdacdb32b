import { type Page } from "@playwright/test";
import { expect, history, row, test, toast, visit } from "./tincup";

const line = (page: Page) => page.getByRole("combobox", { name: "Put something in" });
const chip = (page: Page, field: string) => page.locator(`.panel .chip[data-field="${field}"]`);

test("a range of hours lies on the day that is said beside it; typed ahead, and undone", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/today`);
  await page.keyboard.press("n");
  // One after the other, ahead of what the server says of them.
  await page.keyboard.type("Label the crates on Thursday, 2-4pm\n");
  await page.keyboard.type("Load the van Friday, 22-0:30\n");
  await page.keyboard.type("Ring the choir plan tomorrow from 10-11am\n");
  await page.keyboard.type("Give the pills 9am, 3pm\n");
  await expect(toast(page, "Put in: “Give the pills 9am, 3pm”")).toBeVisible();
  for (const said of ["Label the crates", "Load the van", "Ring the choir"])
    expect(await history(demo.url)).toContainEqual(`Put in: “${said}”`);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await page.keyboard.type("gupc\n");
  for (const [day, title, at] of [
    ["2026-11-25", "Ring the choir", "10:00"],
    ["2026-11-26", "Label the crates", "14:00"],
    ["2026-11-27", "Load the van", "22:00"],
  ] as const)
    await expect(page.locator(`[data-horizon="${day}"]`)).toContainText(
      new RegExp(`${title}.*${at}`),
    );
  // Undone it is gone from its day, and nothing else is.
  await toast(page, "Put in: “Give the pills 9am, 3pm”")
    .getByRole("button", { name: "Undo" })
    .click();
  await expect(toast(page, "Undone")).toBeVisible();
  await expect(row(page, "Label the crates")).toBeVisible();
});

test("on a phone what is said twice is one chip, with all that it was said in marked", async ({
  browser,
  demo,
}) => {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  });
  const page = await context.newPage();
  await visit(page, `${demo.url}/today`);
  await line(page).tap();
  await page.keyboard.type("Pay the rent by Friday, Friday 4pm");
  await expect(chip(page, "due")).toHaveCount(1);
  await expect(chip(page, "due")).toContainText("Fri 27 Nov 2026, 16:00");
  await expect(page.locator(".panel")).toContainText("Pay the rent");
  await page.getByRole("button", { name: "Put in" }).tap();
  await expect(toast(page, "Put in: “Pay the rent”")).toBeVisible();
  await context.close();
});
