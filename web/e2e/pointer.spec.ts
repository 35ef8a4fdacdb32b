import { expect, index, row, test, visit } from "./tincup";

test("no row leaves while the pointer is on its way", async ({ page, demo }) => {
  await visit(page, `${demo.url}/ready`);
  const rows = page.locator("main [data-todo]");
  await expect(rows.nth(5)).toBeVisible();
  const ids = await rows.evaluateAll((all) => all.map((r) => (r as HTMLElement).dataset.todo!));
  /** How long the pointer had rested when a row left, in milliseconds. */
  const leaves = (id: string) =>
    page.evaluate(
      (id) =>
        new Promise<number>((left) => {
          let moved = -Infinity;
          const move = () => (moved = performance.now());
          document.addEventListener("pointermove", move, { capture: true });
          new MutationObserver((_, seen) => {
            if (document.querySelector(`main [data-todo="${id}"]`)) return;
            seen.disconnect();
            left(performance.now() - moved);
          }).observe(document.body, { childList: true, subtree: true });
        }),
      id,
    );
  /** Lets the pointer move for some milliseconds. */
  const wander = (ms: number) =>
    page.evaluate(async (ms) => {
      for (const end = performance.now() + ms; performance.now() < end;) {
        document.dispatchEvent(new PointerEvent("pointermove"));
        await new Promise((done) => requestAnimationFrame(done));
      }
    }, ms);
  // What another window takes away waits until the pointer rests, though not for ever.
  const byOther = leaves(ids[0]!);
  let wanders = wander(900);
  await demo.remove(`/api/todos/${ids[0]}`);
  await wanders;
  expect(await byOther).toBeGreaterThan(650);
  const atLast = leaves(ids[1]!);
  wanders = wander(6000);
  await demo.remove(`/api/todos/${ids[1]}`);
  expect(await atLast).toBeLessThan(650);
  await wanders;
  // What was ticked here leaves four seconds later, and not while the next is gone for.
  const done = row(page, "Book the piano tuner").first();
  const ticked = leaves((await done.getAttribute("data-todo"))!);
  await done.getByRole("checkbox").click();
  await page.mouse.move(5, 400); // the row under the pointer would stay
  await wander(5000);
  expect(await ticked).toBeGreaterThan(650);
});

test("another page is shown at once, also while the pointer moves", async ({ page, demo }) => {
  await visit(page, `${demo.url}/today`);
  const opening = index(page).getByRole("link", { name: "Opening evening" });
  await opening.click(); // its rows are known after this
  await expect(row(page, "Confirm opening evening catering")).toBeVisible();
  for (const [name, there, not] of [
    ["Today", "Meter reading", ""],
    ["Opening evening", "Confirm opening evening catering", "Meter reading"],
    ["Allotment", "Pay the allotment rent", "Confirm opening evening"],
    ["Labels", "Write label text", "Pay the allotment rent"],
  ] as const) {
    // How many frames show the new name over rows of the page before, the pointer moving.
    const frames = page.evaluate(
      async ([name, there, not]) => {
        let wrong = 0;
        for (;;) {
          document.dispatchEvent(new PointerEvent("pointermove"));
          await new Promise((done) => requestAnimationFrame(done));
          const main = document.querySelector("main")!;
          if (!main.querySelector("h1")?.textContent?.includes(name)) continue;
          const rows = [...main.querySelectorAll<HTMLElement>("[data-todo]")];
          if (not && rows.some((r) => r.innerText.includes(not))) wrong++;
          else if (rows.some((r) => r.innerText.includes(there))) return wrong;
        }
      },
      [name, there, not] as const,
    );
    await index(page).getByRole("link", { name }).first().click();
    expect(await frames, name).toBeLessThanOrEqual(2);
  }
  // So is what has changed in one since it was seen.
  const id = (await row(page, "Write label text").first().getAttribute("data-todo"))!;
  await index(page).getByRole("link", { name: "Today" }).first().click();
  await demo.remove(`/api/todos/${id}`);
  await expect(page.locator(`main [data-todo="${id}"]`)).toHaveCount(0);
  const since = page.evaluate(async () => {
    const main = document.querySelector("main")!;
    const reads = () =>
      (performance.getEntriesByType("resource") as PerformanceResourceTiming[]).filter((r) =>
        /lists.*view/.test(r.name),
      );
    const before = reads().length;
    for (;;) {
      document.dispatchEvent(new PointerEvent("pointermove"));
      await new Promise((done) => requestAnimationFrame(done));
      const read = reads()[before];
      if (!read || !main.querySelector("h1")?.textContent?.includes("Labels")) continue;
      if (!main.textContent?.includes("Write label text"))
        return performance.now() - read.responseEnd;
    }
  });
  await index(page).getByRole("link", { name: "Labels" }).first().click();
  expect(await since).toBeLessThan(1500); // at the end of its patience it would be 2000
});

test("a stretch of rows is chosen from the row before: by clicks, by keys, while choosing, drawn over", async ({
  page,
  demo,
}) => {
  await visit(page, `${demo.url}/upcoming`);
  const rows = page.locator("main [data-todo]");
  const chosen = () =>
    rows.evaluateAll((all) =>
      all.flatMap((r, i) => (r.classList.contains("chosen") ? [i + 1] : [])),
    );
  const nth = (n: number) => rows.nth(n - 1);
  await nth(2).click();
  await nth(5).click({ modifiers: ["Shift"] });
  expect(await chosen()).toEqual([2, 3, 4, 5]);
  await page.keyboard.press("Escape"); // the slip
  await page.keyboard.press("Escape");
  expect(await chosen()).toEqual([]);
  await nth(2).focus();
  await page.keyboard.press("j");
  await nth(6).click({ modifiers: ["Shift"] });
  expect(await chosen(), "from the row that keys went to").toEqual([3, 4, 5, 6]);
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Choose", exact: true }).click();
  await nth(3).click();
  await nth(6).click({ modifiers: ["Shift"] });
  expect(await chosen(), "while choosing").toEqual([3, 4, 5, 6]);
  const middle = async (n: number) => {
    const box = (await nth(n).boundingBox())!;
    return [box.x + 300, box.y + box.height / 2] as const;
  };
  await nth(6).click();
  await nth(3).click();
  await page.mouse.move(...(await middle(7)));
  await page.mouse.down();
  await page.mouse.move(...(await middle(9)), { steps: 6 });
  await page.mouse.up();
  expect(await chosen(), "drawn over").toEqual([4, 5, 7, 8, 9]);
});
