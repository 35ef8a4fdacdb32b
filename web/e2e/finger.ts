import type { Page } from "@playwright/test";

/** A finger, as the browser's own input makes it. */
export async function finger(page: Page) {
  const session = await page.context().newCDPSession(page);
  const send = (type: "touchStart" | "touchMove" | "touchEnd", at?: { x: number; y: number }) =>
    session.send("Input.dispatchTouchEvent", { type, touchPoints: at ? [at] : [] });
  let here = { x: 0, y: 0 };
  let since = 0;
  const hand = {
    async down(at: { x: number; y: number }) {
      here = at;
      since = Date.now();
      await send("touchStart", at);
    },
    /**
     * Down and on at once. Where the machine took so long that it was a rest, the finger
     * lets go and begins again.
     */
    async pull(at: { x: number; y: number }, by: { x?: number; y?: number }) {
      for (let tries = 0; tries < 10; tries++) {
        await hand.down(at);
        await send("touchMove", { x: at.x + (by.x ?? 0) / 8, y: at.y + (by.y ?? 0) / 8 });
        if (Date.now() - since < 400) break;
        await send("touchEnd");
      }
      await hand.to({ x: at.x + (by.x ?? 0), y: at.y + (by.y ?? 0) });
    },
    async to(at: { x: number; y: number }) {
      const from = here;
      for (let i = 1; i <= 8; i++)
        await send("touchMove", {
          x: from.x + ((at.x - from.x) * i) / 8,
          y: from.y + ((at.y - from.y) * i) / 8,
        });
      here = at;
    },
    up: () => send("touchEnd"),
    rest: () => page.waitForTimeout(600),
  };
  return hand;
}
