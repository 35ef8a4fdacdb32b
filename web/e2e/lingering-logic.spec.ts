/** What stays in sight for a while, without a browser. */
import "./no-browser";
import { expect, test } from "@playwright/test";
import { createPinia, setActivePinia } from "pinia";
import { stir } from "@/kit/pointer-rest";
import { useToasts } from "@/kit/toasts";
import { useLinger } from "@/server/linger";
import type { SheetGroup } from "@/server/queries";

/** Runs a test in a time of its own, which `until` moves on, in milliseconds. */
function inFakeTime(run: (until: (ms: number) => void) => void) {
  const later: { at: number; does: () => void }[] = [];
  let now = 0;
  const real = { set: globalThis.setTimeout, now: Date.now };
  Date.now = () => now;
  globalThis.setTimeout = ((does: () => void, after: number) =>
    later.push({ at: now + after, does })) as unknown as typeof setTimeout;
  try {
    run((ms) => {
      for (;;) {
        const next = later.filter((l) => l.at <= ms).sort((a, b) => a.at - b.at)[0];
        if (!next) break;
        later.splice(later.indexOf(next), 1);
        now = next.at;
        next.does();
      }
      now = ms;
    });
  } finally {
    globalThis.setTimeout = real.set;
    Date.now = real.now;
  }
}

test.describe("rows that linger, and messages", () => {
  const group = (kind: string, ...ids: string[]) =>
    ({
      kind,
      horizon: null,
      count: ids.length,
      rows: ids.map((id) => ({ todo: { id } })),
    }) as unknown as SheetGroup;
  const shown = (groups: SheetGroup[]) =>
    groups.map((g) => `${g.kind}: ${g.rows.map((r) => r?.todo.id).join(" ")}`);

  /** A group of rows at their depths, which begin with so many dots. */
  const tree = (kind: string, ...rows: string[]) =>
    ({
      kind,
      horizon: null,
      count: rows.length,
      rows: rows.map((said, at) => {
        const depth = /^\.*/.exec(said)![0].length;
        const above = rows.slice(0, at).findLast((r) => /^\.*/.exec(r)![0].length === depth - 1);
        const id = said.slice(depth).replace(/[*+]/g, "");
        const parent = above?.replace(/[.*+]/g, "") ?? null;
        const repeat = said.includes("*") ? { short: "every day" } : null;
        const revision = said.includes("+") ? 2 : 1;
        return { depth, todo: { id, parent, repeat, revision, status: "needs-action" } };
      }),
    }) as unknown as SheetGroup;

  test("a ticked parent stands with what was ticked with it, and a subtask never under another row", () => {
    setActivePinia(createPinia());
    const linger = useLinger();
    const before = [tree("list", "a", "top", ".mid", "..low", ".other", "z")];
    linger.set("low", "completed");
    linger.set("top", "completed");
    const [now] = linger.withKept([tree("list", "z", "a")], before);
    expect(shown([now!])).toEqual(["list: z a top mid low other"]);
    expect(now!.rows.map((r) => r && linger.struck(r.todo))).toEqual([
      false,
      false,
      true,
      true,
      true,
      true,
    ]);
    // Its parent has gone to the bin: it has nothing to stand under.
    linger.forget(["top"]);
    expect(shown(linger.withKept([tree("list", "a", "z")], before))).toEqual(["list: a z"]);
  });

  test("a ticked repeat stands as it was ticked, and not at its next date besides", () => {
    setActivePinia(createPinia());
    const linger = useLinger();
    const before = [tree("due-today", "a", "daily*", "z"), tree("day", "x")];
    const after = [tree("due-today", "a", "z"), tree("day", "x", "daily*+")];
    linger.set("daily", "completed");
    const now = linger.withKept(after, before);
    expect(shown(now)).toEqual(["due-today: a daily z", "day: x"]);
    expect(now[0]!.rows[1]).toBe(before[0]!.rows[1]);
    linger.forget(["daily"]);
    expect(shown(linger.withKept(after, before))).toEqual(["due-today: a z", "day: x daily"]);
  });

  test("what was just ticked stands where it stood, also when its group is gone", () => {
    setActivePinia(createPinia());
    const linger = useLinger();
    const before = [group("overdue", "a"), group("due-today", "b", "c", "d")];
    linger.set("a", "completed");
    linger.set("c", "completed");
    expect(shown(linger.withKept([group("due-today", "b", "d")], before))).toEqual([
      "overdue: a",
      "due-today: b c d",
    ]);
    // Where the server's answer still has it, it is not put in twice.
    expect(shown(linger.withKept(before, before))).toEqual(["overdue: a", "due-today: b c d"]);
    linger.forget(["a", "c"]);
    expect(shown(linger.withKept([group("due-today", "b", "d")], before))).toEqual([
      "due-today: b d",
    ]);
  });

  test("they leave together, a while after the last tick, and not from under a pointer", () => {
    setActivePinia(createPinia());
    inFakeTime((until) => {
      const linger = useLinger();
      const there = () => [...linger.kept.keys()].join(" ");
      linger.set("a", "completed");
      until(3000);
      linger.set("b", "completed");
      until(6900);
      expect(there()).toBe("a b");
      stir();
      until(7400);
      stir(); // on its way to a third
      until(8000);
      expect(there()).toBe("a b");
      until(8200);
      expect(there()).toBe("");
      // The row under pointer or focus stays, the others do not.
      linger.hold("c");
      linger.set("c", "completed");
      linger.set("d", "completed");
      until(20_000);
      expect(there()).toBe("c");
      linger.hold(undefined);
      until(21_000);
      expect(there()).toBe("");
    });
  });

  test("a message stays while the pointer is on one, and a while longer where it is on its way", () => {
    setActivePinia(createPinia());
    inFakeTime((until) => {
      const toasts = useToasts();
      const there = () => toasts.toasts.map((t) => t.text).join(" ");
      toasts.show({ text: "a" });
      until(2000);
      toasts.show({ text: "b" }); // in the place of the first
      expect(there()).toBe("b");
      until(9900);
      stir();
      until(10_500);
      expect(there()).toBe("b");
      until(10_700);
      expect(there()).toBe("");
      toasts.show({ text: "unseen" });
      toasts.keepBack(true);
      until(22_000);
      expect(there()).toBe("unseen"); // there is no room for it yet
      toasts.keepBack(false);
      until(23_000);
      expect(there()).toBe("");
      toasts.hold(toasts.show({ text: "b" }));
      until(40_000);
      expect(there()).toBe("b");
      toasts.hold(undefined);
      until(41_000);
      expect(there()).toBe("");
      // A pointer that never rests keeps none for ever.
      toasts.show({ text: "c" });
      for (let at = 41_000; at < 52_000; at += 100) {
        stir();
        until(at);
      }
      expect(there()).toBe("");
    });
  });
});
