import { readdirSync, readFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import ICAL from "ical.js";

/** What our iCalendar is to be read as; SAMPLES is another folder of such. */
const folder = process.env.SAMPLES ?? new URL("../../internal/formats/testdata", import.meta.url);
interface Found {
  uid: string;
  title: string;
  due?: string;
  alarms: number;
  dates?: string[];
}
/** Rules that ical.js reads otherwise than the standard has them: it passes over their BYSETPOS. */
const readsOtherwise = (rule: ICAL.Recur) =>
  Boolean(rule.parts.BYSETPOS?.length && rule.parts.BYMONTHDAY?.length);
const wall = (t: ICAL.Time) => (t.isDate ? t.toString() : t.toString().slice(0, 16));

test("ical.js reads our calendars as they were meant, with the dates of their rules", () => {
  const path = folder instanceof URL ? folder.pathname : folder;
  const names = readdirSync(path).filter((n) => n.endsWith(".ics"));
  expect(names.length).toBeGreaterThan(9);
  let todos = 0;
  let rules = 0;
  let otherwise = 0;
  for (const name of names) {
    const calendar = new ICAL.Component(
      ICAL.parse(readFileSync(`${path}/${name}`, "utf8")) as unknown[],
    );
    const parts = [
      ...calendar.getAllSubcomponents("vtodo"),
      ...calendar.getAllSubcomponents("vjournal"),
    ];
    const byUid = new Map(parts.map((p) => [p.getFirstPropertyValue("uid"), p]));
    const wanted = JSON.parse(
      readFileSync(`${path}/${name.replace(".ics", ".json")}`, "utf8"),
    ) as Found[];
    expect(byUid.size, name).toBe(wanted.length);
    for (const want of wanted) {
      const part = byUid.get(want.uid)!;
      const found: Found = {
        uid: want.uid,
        title: String(part.getFirstPropertyValue("summary")),
        alarms: part.getAllSubcomponents("valarm").length,
      };
      const due = part.getFirstPropertyValue("due") as ICAL.Time | null;
      if (due && part.name === "vtodo") found.due = wall(due);
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
    `${names.length} calendars, ${todos} to-dos, ${rules} rules, ${otherwise} with BYSETPOS left out`,
  );
});
