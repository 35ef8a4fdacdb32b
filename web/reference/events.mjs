// Writes a calendar of awkward events (RFC 5545), and what ical.js makes of it over a year:
// awkward.ics and ical.txt beside the tests of internal/outside/feed, which compare the
// second with their own reading. Run it from web: node reference/events.mjs
import { writeFileSync } from "node:fs";
import ICAL from "ical.js";

const folder = new URL("../../internal/outside/feed/testdata/", import.meta.url);
let seed = 20261124;
/** A number below n; the same ones each time it is run. */
function below(n) {
  seed = (seed * 1103515245 + 12345) % 2147483648;
  return Math.floor((seed / 2147483648) * n);
}
const of = (list) => list[below(list.length)];
const two = (n) => String(n).padStart(2, "0");

const observance = (kind, from, to, start, rule) =>
  `BEGIN:${kind}\nTZOFFSETFROM:${from}\nTZOFFSETTO:${to}\nDTSTART:${start}\nRRULE:${rule}\nEND:${kind}`;
const european = (winter, summer, at, back) =>
  `${observance("DAYLIGHT", winter, summer, `19960331T${at}`, "FREQ=YEARLY;BYMONTH=3;BYDAY=-1SU")}\n${observance("STANDARD", summer, winter, `19961027T${back}`, "FREQ=YEARLY;BYMONTH=10;BYDAY=-1SU")}`;
const american = (winter, summer) =>
  `${observance("DAYLIGHT", winter, summer, "20070311T020000", "FREQ=YEARLY;BYMONTH=3;BYDAY=2SU")}\n${observance("STANDARD", summer, winter, "20071104T020000", "FREQ=YEARLY;BYMONTH=11;BYDAY=1SU")}`;
const zones = {
  "Europe/Lisbon": european("+0000", "+0100", "010000", "020000"),
  "Europe/Berlin": european("+0100", "+0200", "020000", "030000"),
  "America/New_York": american("-0500", "-0400"),
  "America/St_Johns": american("-0330", "-0230"),
  "Australia/Lord_Howe": `${observance("STANDARD", "+1100", "+1030", "20080406T020000", "FREQ=YEARLY;BYMONTH=4;BYDAY=1SU")}\n${observance("DAYLIGHT", "+1030", "+1100", "20081005T020000", "FREQ=YEARLY;BYMONTH=10;BYDAY=1SU")}`,
  "Asia/Kathmandu":
    "BEGIN:STANDARD\nTZOFFSETFROM:+0545\nTZOFFSETTO:+0545\nDTSTART:19860101T000000\nEND:STANDARD",
  // Of no database: the harbour's own clock, and one that a program wrote with a path.
  "Harbour clock": european("+0117", "+0217", "030000", "040000"),
  "/tincup/1/Signal time": american("-0215", "-0115"),
};
const timezones = Object.entries(zones).map(
  ([id, text]) => `BEGIN:VTIMEZONE\nTZID:${id}\n${text}\nEND:VTIMEZONE`,
);

const days = ["SU", "MO", "TU", "WE", "TH", "FR", "SA"];
const text = (d) =>
  `${d.getUTCFullYear()}${two(d.getUTCMonth() + 1)}${two(d.getUTCDate())}T${two(d.getUTCHours())}${two(d.getUTCMinutes())}00`;
const plus = (d, hours) => new Date(d.getTime() + hours * 3600_000);
const lastOfMonth = (d) =>
  new Date(Date.UTC(d.getUTCFullYear(), d.getUTCMonth() + 1, 0)).getUTCDate();

/** A rule whose first date is the start. */
function ruleFor(d, allDay) {
  const weekday = days[d.getUTCDay()];
  const nth = Math.ceil(d.getUTCDate() / 7);
  const last = d.getUTCDate() > lastOfMonth(d) - 7;
  return of([
    () => `FREQ=DAILY;INTERVAL=${1 + below(9)}`,
    () => `FREQ=WEEKLY;INTERVAL=${1 + below(3)};BYDAY=${weekday}`,
    () =>
      `FREQ=WEEKLY;BYDAY=${[...new Set([weekday, of(days)])].join(",")};WKST=${of(["MO", "SU"])}`,
    () => `FREQ=MONTHLY;BYDAY=${last ? -1 : nth}${weekday}`,
    () => `FREQ=MONTHLY;BYMONTHDAY=${d.getUTCDate()}`,
    () => `FREQ=MONTHLY;BYMONTHDAY=${d.getUTCDate() - lastOfMonth(d) - 1}`,
    () => `FREQ=YEARLY`,
    () => `FREQ=YEARLY;BYMONTH=${d.getUTCMonth() + 1};BYDAY=${last ? -1 : nth}${weekday}`,
    () =>
      `FREQ=YEARLY;BYMONTH=${[...new Set([d.getUTCMonth() + 1, 1 + below(12)])].sort((a, b) => a - b).join(",")};BYMONTHDAY=${d.getUTCDate()}`,
    () => (allDay ? "FREQ=DAILY" : `FREQ=HOURLY;INTERVAL=${5 + below(40)}`),
  ])();
}

const events = [];
for (let i = 0; i < 240; i++) {
  const allDay = i % 6 === 5;
  const kind = allDay ? "date" : of(["utc", "floating", "zone", "zone", "zone", "zone", "zone"]);
  const zone = of(Object.keys(zones));
  const start = new Date(
    Date.UTC(
      2024 + below(3),
      below(12),
      1 + below(31),
      allDay ? 0 : below(24),
      allDay ? 0 : of([0, 15, 30]),
    ),
  );
  // Times of a change: in the gap, and in the hour that comes twice.
  if (i % 20 === 7) start.setTime(Date.UTC(2026, 2, 29, 1 + below(3), 30));
  if (i % 20 === 17) start.setTime(Date.UTC(2026, 9, 25, below(4), 30));
  const value = (name, d) =>
    kind === "date"
      ? `${name};VALUE=DATE:${text(d).slice(0, 8)}`
      : kind === "utc"
        ? `${name}:${text(d)}Z`
        : kind === "floating"
          ? `${name}:${text(d)}`
          : `${name};TZID=${zone}:${text(d)}`;
  const uid = `event-${i}`;
  const lines = [
    `UID:${uid}`,
    "DTSTAMP:20260101T000000Z",
    `SUMMARY:Event ${i}`,
    value("DTSTART", start),
  ];
  const hours = allDay ? 24 * (1 + below(3)) : of([0.5, 1, 2, 26]);
  lines.push(
    i % 3
      ? value("DTEND", plus(start, hours))
      : `DURATION:${allDay ? `P${hours / 24}D` : `PT${hours * 60}M`}`,
  );
  const others = [];
  if (i % 4) {
    let rule = ruleFor(start, allDay);
    const ends = below(4);
    if (ends === 1) rule += `;COUNT=${2 + below(30)}`;
    // Nine days past, so that no time of day decides it.
    if (ends === 2)
      rule += `;UNTIL=${text(plus(start, 24 * (9 + 30 * below(20)))).slice(0, 8)}${allDay ? "" : kind === "floating" ? "T235959" : "T235959Z"}`;
    lines.push(`RRULE:${rule}`);
    const daily = /DAILY|WEEKLY/.test(rule);
    const step = /DAILY;INTERVAL=(\d+)/.exec(rule)?.[1];
    const second = plus(start, step ? 24 * step : /^FREQ=DAILY/.test(rule) ? 24 : 0);
    if (daily && second > start && below(2)) lines.push(value("EXDATE", second));
    if (i % 5 === 1 && !/HOURLY/.test(rule))
      lines.push(value("RDATE", plus(start, 24 * 45 + (allDay ? 0 : 3))));
    if (i % 7 === 1)
      others.push([
        `UID:${uid}`,
        "DTSTAMP:20260101T000000Z",
        value("RECURRENCE-ID", start),
        `SUMMARY:Event ${i}, moved`,
        value("DTSTART", plus(start, allDay ? 48 : 5)),
        value("DTEND", plus(start, allDay ? 72 : 6)),
      ]);
    if (i % 11 === 2)
      others.push([
        `UID:${uid}`,
        "DTSTAMP:20260101T000000Z",
        "STATUS:CANCELLED",
        value("RECURRENCE-ID", start),
        value("DTSTART", start),
      ]);
  }
  for (const of of [lines, ...others]) events.push(`BEGIN:VEVENT\n${of.join("\n")}\nEND:VEVENT`);
}
const calendar = `BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:-//Tin Cup//Awkward events//EN\n${timezones.join("\n")}\n${events.join("\n")}\nEND:VCALENDAR\n`;
writeFileSync(new URL("awkward.ics", folder), calendar.replaceAll("\n", "\r\n"));

const parsed = new ICAL.Component(ICAL.parse(calendar));
for (const z of parsed.getAllSubcomponents("vtimezone")) ICAL.TimezoneService.register(z);
const [from, to] = [Date.UTC(2026, 0, 1) / 1000, Date.UTC(2027, 0, 1) / 1000];
/** Seconds since the epoch; of a date or a floating time as if it were in UTC. */
const seconds = (t) =>
  t.isDate || t.zone.tzid === "floating"
    ? Date.UTC(t.year, t.month - 1, t.day, t.hour, t.minute, t.second) / 1000
    : t.toUnixTime();
const found = [];
const byUid = new Map();
for (const c of parsed.getAllSubcomponents("vevent")) {
  const uid = c.getFirstPropertyValue("uid");
  byUid.set(uid, [...(byUid.get(uid) ?? []), c]);
}
for (const [uid, all] of byUid) {
  // With the changes of its own UID alone.
  const event = new ICAL.Event(
    all.find((c) => !c.hasProperty("recurrence-id")),
    { strictExceptions: true, exceptions: [] },
  );
  for (const c of all) if (c.hasProperty("recurrence-id")) event.relateException(c);
  const keep = (item, start, end) => {
    if (item.component.getFirstPropertyValue("status") === "CANCELLED") return;
    const [a, b] = [seconds(start), seconds(end)];
    if (a < to && (b > from || a >= from)) found.push(`${uid}\t${a}\t${b}`);
  };
  if (!event.isRecurring()) {
    keep(event, event.startDate, event.endDate);
    continue;
  }
  const next = event.iterator();
  for (let at = next.next(); at && seconds(at) < to + 90 * 86400; at = next.next()) {
    const d = event.getOccurrenceDetails(at);
    keep(d.item, d.startDate, d.endDate);
  }
}
writeFileSync(new URL("ical.txt", folder), `${found.sort().join("\n")}\n`);
console.log(`${byUid.size} events, ${found.length} occurrences`);
