/** What the page works out by itself, without a browser. */
import { numbers } from "./no-browser";
import { expect, test } from "@playwright/test";
import { QueryClient, QueryObserver } from "@tanstack/vue-query";
import { piecesOf } from "@/capture/pieces";
import { filled, newGroup, newTest, read, takeOut, write } from "@/builder/tree";
import type { GroupLine, Line } from "@/builder/tree";
import type { FilterNode, Group, Meaning, Row, View } from "@/server/client";
import { again } from "@/server/again";
import { assemble } from "@/server/patch";
import type { Read } from "@/server/reading";
import { altered } from "@/server/seen";
import { fieldWords } from "@/words/clash";
import { totalWords, verdictOf } from "@/words/meaning";
import { minutesOf, workWords } from "@/words/fields";
import * as dates from "@/words/dates";
import { bothWords, cupWords, fillOf, fullWords, saucerWords } from "@/words/load";

test.describe("the builder's tree", () => {
  const pick = numbers(7);
  const value = "01936f00-0000-7000-8000-000000000001";
  const tests: FilterNode[] = [
    { field: "tag", op: "any-of", values: [value] },
    { field: "due", op: "within-next", days: 3 },
    { field: "plan", op: "between", date: "P1D", to: "2026-12-24" },
    { field: "due", op: "time-between", from: "09:00", until: "12:00" },
    { field: "estimate", op: "at-most", minutes: 20 },
    { field: "overdue", op: "yes" },
    { field: "text", op: "contains", text: "lamp" },
  ];
  function random(depth: number): FilterNode {
    if (depth === 0 || pick(3) === 0) return tests[pick(tests.length)]!;
    if (pick(5) === 0) return { not: random(0) };
    const of = pick(2) ? "all" : "any";
    return { [of]: Array.from({ length: pick(4) }, () => random(depth - 1)) };
  }
  /** The node that a JSON pointer (RFC 6901) names. */
  const pointed = (filter: FilterNode, path: string) =>
    path
      .split("/")
      .slice(1)
      .reduce<unknown>((node, step) => (node as Record<string, unknown>)[step], filter);

  test("what is read and written again is the same, each line at its path", () => {
    for (let round = 0; round < 300; round++) {
      const filter = random(4);
      const { filter: again, at } = write(read(filter));
      expect(again.all || again.any).toBeTruthy();
      expect(write(read(again)).filter).toEqual(again);
      // The outermost is a group always; what was one alone stands in it.
      expect([filter, again.all?.[0]]).toContainEqual(filter.all || filter.any ? again : filter);
      for (const [path, line] of at) {
        const node = pointed(again, path) as FilterNode;
        if (line.kind === "group") expect(node[line.of]).toBeDefined();
        else expect([node.field, node.op]).toEqual([line.field, line.op]);
      }
    }
  });

  test("lines that are not filled in are left out, and the paths of the others follow", () => {
    const empty = newTest("tag");
    const late = { ...newTest("overdue"), op: "yes" };
    const root = newGroup("all", empty, newGroup("any", newTest("text"), late));
    expect(filled(empty)).toBe(false);
    const { filter, at } = write(root);
    expect(filter).toEqual({ all: [{ any: [{ field: "overdue", op: "yes" }] }] });
    expect(at.get("/all/0/any/0")).toBe(late);
  });

  test("not of not is plain, and a not stands before its line", () => {
    const twice: FilterNode = { not: { not: { field: "overdue", op: "yes" } } };
    expect(write(read(twice)).filter).toEqual({ all: [{ field: "overdue", op: "yes" }] });
    const group: FilterNode = { not: { any: [{ field: "overdue", op: "yes" }] } };
    const { filter, at } = write(read(group));
    expect(filter).toEqual({ all: [group] });
    expect([...at.keys()].sort()).toEqual(["", "/all/0/not", "/all/0/not/any/0"]);
  });

  test("a line is taken out wherever it stands, once", () => {
    const inner = newTest("text");
    const root = newGroup("all", newGroup("any", newGroup("all", inner)), newTest());
    const count = (g: GroupLine): number =>
      g.lines.reduce((n, l: Line) => n + 1 + (l.kind === "group" ? count(l) : 0), 0);
    expect(count(root)).toBe(4);
    expect(takeOut(root, inner)).toBe(true);
    expect(takeOut(root, inner)).toBe(false);
    expect(count(root)).toBe(3);
  });
});

test.describe("patches", () => {
  const row = (id: number) => ({ todo: { id: String(id), title: `row ${id}` } }) as Row;
  const view = (groups: Partial<Group>[]) =>
    ({ total: 0, sentence: "now", groups }) as unknown as View;

  test("an answer is put together from kept runs and fresh rows", () => {
    const pick = numbers(11);
    for (let round = 0; round < 200; round++) {
      const had = Array.from({ length: pick(12) }, (_, i) => row(i));
      const cut = pick(had.length + 1);
      const before = view([{ rows: had.slice(0, cut) }, { rows: had.slice(cut) }]);
      const fresh: Row[] = [];
      const kept: number[] = [];
      const want: string[] = [];
      for (let run = 0; run < pick(5); run++) {
        if (had.length && pick(2)) {
          const from = pick(had.length);
          const n = 1 + pick(had.length - from);
          kept.push(from, n);
          want.push(...had.slice(from, from + n).map((r) => r.todo.id));
        } else {
          const n = 1 + pick(3);
          kept.push(-1, n);
          for (let i = 0; i < n; i++) fresh.push(row(100 + fresh.length));
          want.push(...fresh.slice(-n).map((r) => r.todo.id));
        }
      }
      const got = assemble(before, view([{ kept, rows: fresh }]));
      expect(got.groups[0]!.rows.map((r) => r.todo.id)).toEqual(want);
      expect(got.groups[0]!.kept).toBeUndefined();
      expect(got.sentence).toBe("now");
    }
  });
});

test.describe("what was altered", () => {
  test("only what differs is written, and an empty text is none", () => {
    const before = { name: "Loans", email: null, order: ["due"] };
    expect(altered(before, { name: "Loans", email: "", order: ["due"] })).toEqual({});
    expect(altered(before, { name: "loans", order: ["due", "title"] })).toEqual({
      name: "loans",
      order: ["due", "title"],
    });
  });

  test("a clash says what stands there now", () => {
    const todo = { title: "Hang the lamps", due: "2026-11-27T16:00", status: "in-process" };
    const words = (field: Parameters<typeof fieldWords>[0]) =>
      fieldWords(field, todo as Parameters<typeof fieldWords>[1]);
    expect(words("due")).toBe("Fri 27 Nov 2026, 16:00");
    expect(words("start")).toBe("none");
    expect(words("status")).toBe("in process");
    expect(words("title")).toBe("“Hang the lamps”");
    expect(words("person")).toBe("nobody");
  });
});

test("minutes are read as they are said", () => {
  for (const [text, minutes] of [
    ["20", 20],
    ["45 min", 45],
    ["5m", 5],
    ["2h", 120],
    ["1h30", 90],
    ["1 h 05 min", 65],
    [" 90 ", 90],
    ["0", undefined],
    ["soon", undefined],
    ["1h30h", undefined],
    ["-5", undefined],
    ["999999", undefined],
    ["", undefined],
  ] as const)
    expect(minutesOf(text), text).toBe(minutes);
});

test.describe("words for dates", () => {
  // Years of 53 ISO weeks from 2000 to 2050; published in many calendars, here from memory.
  const long = [2004, 2009, 2015, 2020, 2026, 2032, 2037, 2043, 2048];

  test("ISO weeks", () => {
    for (let year = 2000; year <= 2050; year++) {
      const last = dates.isoWeek(`${year}-12-28`); // it lies in the last week of its year
      expect(last).toBe(`${year}-W${long.includes(year) ? 53 : 52}`);
      expect(dates.addDays(dates.weekStart(last), 7)).toBe(dates.weekStart(`${year + 1}-W01`));
    }
    for (let n = 0; n < 1500; n++) {
      const date = dates.addDays("2024-12-20", n);
      const into = dates.daysBetween(date, dates.weekStart(dates.isoWeek(date)));
      expect(into).toBe((new Date(`${date}T00:00:00Z`).getUTCDay() + 6) % 7);
    }
  });

  test("days, moments and plans, seen from Tuesday 24 November 2026", () => {
    const today = "2026-11-24";
    for (const [date, words] of [
      ["2026-11-24", "today"],
      ["2026-11-25", "tomorrow"],
      ["2026-11-23", "yesterday"],
      ["2026-11-30", "Mon 30"],
      ["2026-12-01", "1 Dec"],
      ["2026-11-18", "18 Nov"],
      ["2027-01-01", "1 Jan 2027"],
    ])
      expect(dates.shortDay(date!, today), date).toBe(words);
    for (const [plan, words] of [
      ["parked", "parked"],
      ["2026-W48", "this week"],
      ["2026-W49", "next week"],
      ["2026-W52", "week of 21 Dec"],
      ["2026-11", "this month"],
      ["2026-12", "December"],
      ["2027-02", "February 2027"],
      ["2026-11-27", "Fri 27"],
      ["2026-11-25T14:00/PT90M", "tomorrow 14:00 for 1 h 30 min"],
    ])
      expect(dates.planWords(plan!, today), plan).toBe(words);
    expect(dates.longDay("2026-11-29", today)).toBe("Sunday 29 November");
    expect(dates.longDay("2027-03-01", today)).toBe("Monday 1 March 2027");
    expect([0, 1, 3].map(dates.late)).toEqual(["earlier today", "yesterday", "3 days late"]);
  });

  test("an instant is said in the server's zone", () => {
    const instant = "2026-11-24T23:30:00Z";
    expect(dates.instantDay(instant, "Europe/Lisbon")).toBe("2026-11-24");
    expect(dates.instantDay(instant, "Pacific/Auckland")).toBe("2026-11-25");
    expect(dates.instantTime(instant, "America/New_York")).toBe("18:30");
  });

  test("a cup fills by its minutes, and says them", () => {
    expect(fillOf({ minutes: 300, assumed: 60, capacity: 240 }, 5)).toEqual({
      level: 1.25,
      assumed: 0.25,
      over: 60,
    });
    expect(fillOf({ minutes: 30, capacity: 0 }, 1)).toEqual({ level: 1, assumed: 0, over: 0 });
    expect(fillOf({ minutes: 900 }, 64).level).toBe(1);
    for (const [load, short, full] of [
      [{ minutes: 190, capacity: 240 }, "4 · 3 h 10", "3 h 10 of 4 h"],
      [{ minutes: 300, capacity: 240 }, "4 · 1 h over", "1 h more than its 4 h"],
      [{ minutes: 30, capacity: 0 }, "30 min outside", "30 min outside working hours"],
      [{ minutes: 0, capacity: 240 }, "4", "4 h free"],
    ] as const) {
      expect(cupWords("2026-11-24", 4, load)).toBe(short);
      expect(fullWords(load)).toBe(full);
    }
    expect(cupWords("parked", 12, { minutes: 600 })).toBe("12");
    for (const [own, saucer, both] of [
      [undefined, "", "1 h of 4 h"],
      [{ minutes: 0, capacity: 180 }, "", "1 h of 4 h"],
      [{ minutes: 30, capacity: 180 }, "30 min of 3 h", "1 h of 4 h, own hours 30 min of 3 h"],
      [
        { minutes: 200, capacity: 180 },
        "20 min more than its 3 h",
        "1 h of 4 h, own hours 20 min more than its 3 h",
      ],
      [
        { minutes: 30, capacity: 0 },
        "30 min outside own hours",
        "1 h of 4 h, 30 min outside own hours",
      ],
    ] as const) {
      expect(saucerWords({ minutes: 60, capacity: 240, own })).toBe(saucer);
      expect(bothWords({ minutes: 60, capacity: 240, own })).toBe(both);
    }
    expect(bothWords({ minutes: 90, assumed: 30, capacity: 240 })).toBe(
      "1 h 30 of 4 h, 30 min of it assumed",
    );
    for (const [minutes, assumed, full, short] of [
      [100, 60, "1 h 40, 1 h of it assumed", "1 h 40?"],
      [30, 30, "30 min assumed", "30 min?"],
      [30, 0, "30 min", "30 min"],
    ] as const)
      expect([workWords(minutes, assumed), workWords(minutes, assumed, true)]).toEqual([
        full,
        short,
      ]);
  });
});

test.describe("the capture line", () => {
  const reading = (text: string, spans: { start: number; end: number; problem?: string }[]) =>
    ({
      text,
      chips: spans.map(({ start, end, problem }) => ({ spans: [{ start, end }], problem })),
    }) as unknown as Read;

  test("is cut where words were understood, and what was typed since stays plain", () => {
    const read = reading("Ring Tom Friday high", [
      { start: 16, end: 20, problem: "There are two." },
      { start: 9, end: 15 },
      { start: 9, end: 15 }, // another value of the same words
    ]);
    const pieces = piecesOf("Ring Tom Friday hi", read, []);
    expect(pieces).toEqual([
      { text: "Ring Tom " },
      { text: "Friday", read: "yes" },
      { text: " hi" },
    ]);
    expect(piecesOf(read.text, read, []).at(-2)).toEqual({ text: "high", read: "problem" });
    expect(piecesOf("Rung Tom Friday", read, [])).toEqual([{ text: "Rung Tom Friday" }]);
    expect(piecesOf("", undefined, [])).toEqual([{ text: "" }]);
  });
});

test.describe("what a filter means", () => {
  const meaning = (m: Partial<Meaning>) =>
    ({ verdict: "sometimes", total: 0, minutes: 0, tests: ["t"], says: "", ...m }) as Meaning;

  test("is said with how many it holds, and whether it ever can", () => {
    expect(totalWords(meaning({ total: 1 }))).toBe("1 matches now");
    expect(totalWords(meaning({ total: 3, minutes: 90 }))).toBe("3 match now, 1 h 30 of work");
    expect(totalWords(meaning({ verdict: "never" }))).toBe("0 match now, and 0 can ever");
    expect(verdictOf(meaning({}))).toBeUndefined();
    expect(verdictOf(meaning({ verdict: "always", tests: [] }))).toBeUndefined();
    expect(verdictOf(meaning({ verdict: "always" }))?.bad).toBe(false);
    expect(verdictOf(meaning({ verdict: "never", says: "Why." }))).toMatchObject({
      bad: true,
      says: "Why.",
    });
    expect(verdictOf(meaning({ verdict: "not decided", now: "never" }))?.head).toContain("today");
    expect(verdictOf(meaning({ verdict: "not decided" }))?.head).toContain("too much to try");
  });
});

test("what changes while its first answer is on its way is asked for again", async () => {
  const queries = new QueryClient();
  const answers: ((value: string) => void)[] = [];
  const observer = new QueryObserver(queries, {
    queryKey: ["bell"],
    queryFn: () => new Promise<string>((answer) => answers.push(answer)),
  });
  const stop = observer.subscribe(() => {});
  const now = () => observer.getCurrentResult().data;
  expect(answers).toHaveLength(1);
  again(queries, { queryKey: ["bell"] });
  answers[0]!("nothing");
  await expect.poll(() => answers.length).toBe(2);
  answers[1]!("it rings");
  await expect.poll(now).toBe("it rings");
  // With an answer there it is asked for at once, and nothing twice.
  again(queries, { queryKey: ["bell"] });
  await expect.poll(() => answers.length).toBe(3);
  answers[2]!("seen");
  await expect.poll(now).toBe("seen");
  expect(answers).toHaveLength(3);
  stop();
});
