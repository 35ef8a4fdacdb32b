import { readdirSync, readFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { Ajv } from "ajv";
import ICAL from "ical.js";
import MarkdownIt from "markdown-it";

/** What our files are to be read as; SAMPLES is another folder of such. */
const folder = process.env.SAMPLES ?? new URL("../../internal/formats/testdata", import.meta.url);
interface Found {
  uid: string;
  title: string;
  due?: string;
  alarms: number;
  rings?: string[];
  dates?: string[];
  under: number;
  done?: boolean;
  note?: boolean;
}
/** Rules that ical.js reads otherwise than the standard has them: it passes over their BYSETPOS. */
const readsOtherwise = (rule: ICAL.Recur) =>
  Boolean(rule.parts.BYSETPOS?.length && rule.parts.BYMONTHDAY?.length);
const wall = (t: ICAL.Time) => (t.isDate ? t.toString() : t.toString().slice(0, 16));

/** The instant of a date or a time; of a date its first (RFC 5545, section 3.8.6.3). */
function instant(value: ICAL.Time): number {
  if (!value.isDate && value.zone === ICAL.Timezone.utcTimezone) return value.toUnixTime();
  // The samples are of a winter, in which Lisbon keeps universal time.
  const universal = value.clone();
  universal.isDate = false;
  universal.zone = ICAL.Timezone.utcTimezone;
  return universal.toUnixTime();
}
/** The instants at which alarms come, but for those that no time brings (RFC 9074, section 8). */
function rings(part: ICAL.Component): string[] | undefined {
  const found: string[] = [];
  for (const alarm of part.getAllSubcomponents("valarm")) {
    const trigger = alarm.getFirstProperty("trigger")!;
    const value = trigger.getFirstValue() as ICAL.Time | ICAL.Duration;
    const base = trigger.getParameter("related") === "END" ? "due" : "dtstart";
    const at =
      value instanceof ICAL.Duration
        ? instant(part.getFirstPropertyValue(base) as ICAL.Time) + value.toSeconds()
        : instant(value);
    if (at > 200e6) found.push(new Date(at * 1000).toISOString().replace(".000", ""));
  }
  return found.length ? found.sort() : undefined;
}

const path = folder instanceof URL ? folder.pathname : folder;
const wantedOf = (name: string) =>
  JSON.parse(readFileSync(`${path}/${name.replace(/\.\w+$/, ".json")}`, "utf8")) as Found[];

test("ical.js reads our calendars as they were meant, with the dates of their rules", () => {
  const names = readdirSync(path).filter((n) => n.endsWith(".ics"));
  expect(names.length).toBeGreaterThan(9);
  let todos = 0;
  let rules = 0;
  let otherwise = 0;
  let rung = 0;
  for (const name of names) {
    const calendar = new ICAL.Component(
      ICAL.parse(readFileSync(`${path}/${name}`, "utf8")) as unknown[],
    );
    const parts = [
      ...calendar.getAllSubcomponents("vtodo"),
      ...calendar.getAllSubcomponents("vjournal"),
    ];
    const byUid = new Map(parts.map((p) => [p.getFirstPropertyValue("uid"), p]));
    const wanted = wantedOf(name);
    expect(byUid.size, name).toBe(wanted.length);
    for (const want of wanted) {
      const part = byUid.get(want.uid)!;
      const found: Found = {
        ...{ uid: want.uid, under: want.under, done: want.done, note: want.note },
        title: String(part.getFirstPropertyValue("summary")),
        alarms: part.getAllSubcomponents("valarm").length,
      };
      const due = part.getFirstPropertyValue("due") as ICAL.Time | null;
      if (due && part.name === "vtodo") found.due = wall(due);
      const ringing = rings(part);
      if (ringing && part.name === "vtodo") {
        found.rings = ringing;
        rung += ringing.length;
      }
      const rule = part.getFirstPropertyValue("rrule") as ICAL.Recur | null;
      if (rule) {
        const start = part.getFirstPropertyValue("dtstart") as ICAL.Time;
        const dates: string[] = [];
        const iterator = rule.iterator(start);
        for (let next = iterator.next(); next && dates.length < 20; next = iterator.next())
          dates.push(next.toString().slice(0, 10));
        found.dates = readsOtherwise(rule) ? want.dates : dates;
        if (readsOtherwise(rule)) otherwise++;
        else rules++;
      }
      expect(found, `${name}: ${want.title}`).toEqual(want);
      todos++;
    }
  }
  console.log(
    `${names.length} calendars, ${todos} to-dos, ${rules} rules, ${rung} rings, ${otherwise} with BYSETPOS left out`,
  );
});

/** An item of a task list as markdown-it has it. */
interface Item {
  text: string;
  under: number;
  done: boolean;
  box: boolean;
}

function items(markdown: string): Item[] {
  const found: Item[] = [];
  const open: number[] = [];
  let quoted = 0;
  let begins = false;
  for (const token of new MarkdownIt({ html: true }).parse(markdown, {})) {
    if (token.type === "blockquote_open") quoted++;
    if (token.type === "blockquote_close") quoted--;
    if (quoted) continue;
    if (token.type === "list_item_open") begins = true;
    if (token.type === "list_item_close") open.pop();
    if (token.type !== "inline" || !begins) continue;
    begins = false;
    const text = (token.children ?? [])
      .filter((t) => t.type.startsWith("text") || t.type === "code_inline")
      .map((t) => t.content)
      .join("");
    const box = /^\[([ xX])\] /.exec(text);
    found.push({
      text: box ? text.slice(4) : text,
      under: open.at(-1) ?? -1,
      done: box !== null && box[1] !== " ",
      box: box !== null,
    });
    open.push(found.length - 1);
  }
  return found;
}

test("markdown-it reads our task lists: what is below what, done, and begins with its title", () => {
  const names = readdirSync(path).filter((n) => n.endsWith(".md"));
  expect(names.length).toBeGreaterThan(9);
  let todos = 0;
  for (const name of names) {
    const found = items(readFileSync(`${path}/${name}`, "utf8"));
    const wanted = wantedOf(name);
    expect(found.length, name).toBe(wanted.length);
    const starts = (text: string, title: string) => {
      const quoted = title.replaceAll('"', '""');
      return [title, quoted, `"${quoted}"`].some((t) => text.replace(/^note: /, "").startsWith(t));
    };
    expect(
      found.map(({ text, ...item }, i) => ({
        ...item,
        title: starts(text, wanted[i]!.title) ? wanted[i]!.title : text,
      })),
      name,
    ).toEqual(
      wanted.map((w) => ({ under: w.under, done: w.done ?? false, box: !w.note, title: w.title })),
    );
    todos += wanted.length;
  }
  console.log(`${names.length} files, ${todos} to-dos`);
});

test("our JSCalendar is as a schema written from the standard has it", () => {
  const schema = new URL("../../internal/formats/jscal/testdata/task.schema.json", import.meta.url);
  const holds = new Ajv({ allErrors: true, strict: false }).compile(
    JSON.parse(readFileSync(schema, "utf8")) as object,
  );
  const names = readdirSync(path).filter((n) => n.endsWith(".jscal"));
  expect(names.length).toBeGreaterThan(9);
  for (const name of names) {
    holds(JSON.parse(readFileSync(`${path}/${name}`, "utf8")));
    expect(holds.errors ?? [], name).toEqual([]);
  }
  // And it is a schema that refuses.
  expect(
    holds({
      "@type": "Group",
      uid: "x",
      updated: "2026-11-24T09:10:00Z",
      entries: [{ "@type": "Task" }],
    }),
  ).toBe(false);
});
