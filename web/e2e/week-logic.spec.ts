/** What the week and the review work out by themselves, without a browser. */
import { numbers } from "./no-browser";
import { expect, test } from "@playwright/test";
import type { Todo } from "@/server/client";
import type { WeekDay, WeekSlip } from "@/server/week";
import {
  faceOf,
  firstFree,
  lanesOf,
  minuteIn,
  planAt,
  planBeside,
  slotOf,
  without,
} from "@/week/hours";
import { lengthened } from "@/week/layout";
import { decidedWords, lastWords, steps } from "@/words/review";
import { hourChoices } from "@/words/week";

test.describe("the hours of a day", () => {
  const on = "2026-11-25";
  const day = (hours: [string, string][], more: Partial<WeekDay> = {}): WeekDay => ({
    day: on,
    worked: 450,
    over: 0,
    load: { minutes: 0 },
    hours: hours.map(([from, to]) => ({ from: `${on}T${from}`, to: `${on}T${to}` })),
    ownHours: [],
    ownWorked: 0,
    peak: [],
    events: [],
    slips: [],
    done: [],
    doneCount: 0,
    usual: "09:00-12:30, 13:30-17:30",
    ...more,
  });
  const usual: [string, string][] = [
    ["09:00", "12:30"],
    ["13:30", "17:30"],
  ];

  test("times go to plans and back, past midnight too where the day does, and another day's is none", () => {
    for (const [plan, at, minutes, starts] of [
      ["2026-11-25T14:00/PT30M", 840, 30, 0],
      ["2026-11-25T09:05/PT1H30M", 545, 90, 240],
      ["2026-11-25T00:00/PT24H", 0, 1440, 0],
      ["2026-11-26T01:30/PT45M", 1530, 45, 240],
    ] as const) {
      expect(slotOf(plan, on, starts)).toEqual({ at, minutes });
      expect(slotOf(planAt(on, { at, minutes }), on, starts)).toEqual({ at, minutes });
    }
    for (const plan of ["2026-11-25", "2026-W48", "2026-11-23T10:00/PT1H", "parked", null])
      expect(slotOf(plan, on)).toBeUndefined();
    // Due here and planned for tomorrow: this day does not grow to where that lies.
    expect(slotOf("2026-11-26T10:00/PT1H", on)).toBeUndefined();
    expect(slotOf("2026-11-26T01:30/PT1H", on)).toBeUndefined();
    expect(slotOf("2026-11-25T01:30/PT1H", on, 240)).toBeUndefined();
    expect(minuteIn("2026-11-26T00:10", on)).toBe(1450);
  });

  test("a day earlier and later, an hour more and less: random acts against a model", () => {
    const today = "2026-11-24";
    const dayAt = (n: number) => `2026-${n < 7 ? `11-${24 + n}` : `12-0${n - 6}`}`;
    const text = (n: number) => (n < 0 ? "2026-11-20" : dayAt(n));
    const pick = numbers(5);
    for (let round = 0; round < 500; round++) {
      // The model: which day it is planned for, undefined for none, and its time of the day.
      const at = pick(2) ? 15 * pick(90) : undefined;
      let [day, length] = [pick(3) ? pick(5) : undefined, 15 + 15 * pick(8)];
      let estimate: number | null = pick(2) ? length : null;
      const lies = pick(4) ? pick(5) : undefined; // by its due
      const planned = (d: number) =>
        at === undefined ? text(d) : planAt(text(d), { at, minutes: length });
      let plan = day === undefined ? null : planned(day);
      for (let act = 0; act < 12; act++) {
        if (pick(3)) {
          const by = pick(2) ? 1 : -1;
          const to = planBeside(plan, by, lies === undefined ? undefined : text(lies), today);
          const from: number | undefined = day ?? lies;
          const wanted: number = from === undefined ? 0 : from + by;
          if (wanted < 0) {
            expect(to).toBeUndefined();
            continue;
          }
          if (wanted > 12) break;
          const timed = day !== undefined && at !== undefined;
          expect(to).toBe(timed ? planned(wanted) : text(wanted));
          if (!timed && at !== undefined) break; // it has lost no time: it had none
          [plan, day] = [to!, wanted];
        } else {
          const timed = day !== undefined && at !== undefined;
          const by = pick(2) ? 15 : -15;
          const now = timed ? length : (estimate ?? 30);
          const next = Math.max(5, Math.min(now + by, 1440));
          const changed = lengthened({ estimate, plan } as WeekSlip["todo"], now + by);
          if (timed) {
            if (!estimate || estimate === length) {
              expect(changed.estimate).toBe(next);
              estimate = next;
            } else expect(changed).not.toHaveProperty("estimate");
            length = next;
            plan = planned(day!);
            expect(changed.plan).toBe(plan);
          } else {
            expect(changed).toEqual({ estimate: next });
            estimate = next;
          }
        }
      }
    }
    // A plan of a past day counts from where the slip lies now, and keeps its hour.
    expect(planBeside("2026-11-20T10:00/PT1H", 1, today, today)).toBe("2026-11-25T10:00/PT60M");
    expect(planBeside("2026-W48", 1, "2026-11-26", today)).toBe("2026-11-27");
    expect(planBeside("2026-11-24", -1, today, today)).toBeUndefined();
  });

  test("those that overlap stand beside each other, random ones too", () => {
    expect(
      lanesOf([
        { at: 540, minutes: 60 },
        { at: 570, minutes: 60 },
        { at: 600, minutes: 30 },
        { at: 700, minutes: 10 },
      ]),
    ).toEqual([
      { lane: 0, of: 2 },
      { lane: 1, of: 2 },
      { lane: 0, of: 2 },
      { lane: 0, of: 1 },
    ]);
    const pick = numbers(11);
    for (let round = 0; round < 200; round++) {
      const slots = Array.from({ length: pick(12) }, () => ({
        at: pick(600),
        minutes: 1 + pick(200),
      }));
      const lanes = lanesOf(slots);
      slots.forEach((a, i) =>
        slots.forEach((b, j) => {
          if (i >= j || a.at >= b.at + b.minutes || b.at >= a.at + a.minutes) return;
          expect(lanes[i]!.lane).not.toBe(lanes[j]!.lane);
          expect(lanes[i]!.of).toBe(lanes[j]!.of);
        }),
      );
      for (const l of lanes) expect(l.lane).toBeLessThan(l.of);
    }
  });

  test("the first that is free is not before now, nor over an event, a slot or lunch", () => {
    const free = (minutes: number, now: string, slots: { at: number; minutes: number }[] = []) =>
      firstFree(
        day(usual, {
          events: [
            {
              calendar: "c",
              uid: "u",
              title: "Round",
              takes: 45,
              from: `${on}T11:00`,
              to: `${on}T11:45`,
            },
          ],
        }),
        slots,
        minutes,
        now,
      );
    expect(free(60, "2026-11-24T18:00")).toBe(540);
    expect(free(60, `${on}T09:50`)).toBe(600);
    expect(free(61, `${on}T09:50`)).toBe(810);
    expect(free(30, `${on}T09:00`, [{ at: 540, minutes: 100 }])).toBe(705);
    expect(free(241, `${on}T09:00`)).toBeUndefined();
    expect(
      without({ from: 0, to: 10 }, [
        { from: 2, to: 4 },
        { from: 3, to: 5 },
      ]),
    ).toEqual([
      { from: 0, to: 2 },
      { from: 5, to: 10 },
    ]);
  });

  test("an opened cup shows whole hours, four at least, and no event makes it endless", () => {
    expect(faceOf(day(usual), [], 420)).toMatchObject({ from: 540, to: 1080 });
    expect(faceOf(day([["10:15", "11:00"]]), [], 420)).toMatchObject({ from: 600, to: 840 });
    expect(faceOf(day(usual), [{ at: 1230, minutes: 30 }], 300).to).toBe(1260);
    const fair = { calendar: "c", uid: "u", title: "Fair", takes: 450 };
    const long = day(usual, {
      events: [{ ...fair, from: "2026-11-24T12:00", to: "2026-11-27T15:00" }],
    });
    expect(faceOf(long, [], 420)).toMatchObject({ from: 540, to: 1080 });
    expect(faceOf(day([]), [], 420)).toMatchObject({ from: 540, to: 1020 });
  });

  test("another length is that of the time, and of the estimate where they were one", () => {
    const todo = (estimate: number | null, plan: string | null) =>
      ({ estimate, plan }) as WeekSlip["todo"];
    expect(lengthened(todo(30, null), 45)).toEqual({ estimate: 45 });
    expect(lengthened(todo(30, `${on}T10:00/PT30M`), 45)).toEqual({
      estimate: 45,
      plan: `${on}T10:00/PT45M`,
    });
    expect(lengthened(todo(180, `${on}T10:00/PT1H`), 75)).toEqual({ plan: `${on}T10:00/PT75M` });
    expect(lengthened(todo(30, null), -10)).toEqual({ estimate: 5 });
    expect(lengthened(todo(30, null), 9000)).toEqual({ estimate: 1440 });
  });

  test("hours of its own: away, short, long, as usual, or what is typed", () => {
    const hours = (d: WeekDay, typed = "") => hourChoices(d, typed).map((c) => c.hours);
    expect(hours(day(usual))).toEqual([null, "none", "09:00-12:30", "09:00-12:30, 13:30-19:30"]);
    expect(hours(day([], { usual: "none" }))).toEqual([
      null,
      "none",
      "09:00-12:00",
      "09:00-12:30, 13:30-17:30",
    ]);
    expect(hours(day([], { usual: "10:00-12:00" }))[2]).toBe("10:00-11:00");
    expect(hours(day(usual), " 9-12 ")).toEqual(["9-12"]);
    const away = hourChoices(day([], { apart: true }), "");
    expect(away.filter((c) => c.now).map((c) => c.key)).toEqual(["away"]);
    expect(hourChoices(day(usual), "").find((c) => c.now)?.key).toBe("usual");
  });
});

test("a review says what was decided, and when it was last done", () => {
  expect(decidedWords([])).toBe("nothing yet");
  expect(decidedWords(["tick", "today", "next-week", "leave", "tick"])).toBe(
    "2 done, 2 planned, 1 left as they were",
  );
  expect(lastWords(undefined, "2026-11-24")).toBe("not done yet");
  expect(lastWords("2026-11-24", "2026-11-24")).toBe("done today");
  expect(lastWords("2026-11-23", "2026-11-24")).toBe("last done yesterday");
  expect(lastWords("2026-11-12", "2026-11-24")).toBe("last done 12 days ago");
  const asks = (due: string | null) => steps.slipped!.asks({ due } as Todo, "2026-11-24");
  expect(asks("2026-11-21")).toBe("3 days late. Is it still to be done?");
  expect(asks("2026-11-23T17:00")).toBe("Due yesterday. Is it still to be done?");
  expect(asks("2026-11-24T08:00")).toBe("Due today. Is it still to be done?");
  expect(asks("2026-11-25")).toBe("Its day has passed. When instead?");
  expect(asks(null)).toBe("Its day has passed. When instead?");
});
