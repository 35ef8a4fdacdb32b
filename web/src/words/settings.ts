import { soundNames } from "./bell";
import { allViews } from "./index-views";

/** The names of the settings. */
export type SettingName =
  | "zone"
  | "dayStart"
  | "weekStart"
  | "dateOrder"
  | "look"
  | "urgentDays"
  | "singleKeys"
  | "reasons"
  | "rows"
  | "views"
  | "marks"
  | "reviewedDaily"
  | "reviewedWeekly"
  | "reviewedMonthly"
  | "firstThing"
  | "morning"
  | "afternoon"
  | "evening"
  | "tonight"
  | `hours${Weekday}`
  | "hoursOn"
  | `ownHours${Weekday}`
  | "ownHoursOn"
  | "peak"
  | "assumed"
  | "reminderHour"
  | "quietHours"
  | "ringsPaused"
  | "cards"
  | "browserNotifications"
  | "desktopNotifications"
  | "sound"
  | "copies"
  | "csvColumns";

const weekdays = [
  "Monday",
  "Tuesday",
  "Wednesday",
  "Thursday",
  "Friday",
  "Saturday",
  "Sunday",
] as const;
type Weekday = (typeof weekdays)[number];

/** How a setting is chosen: one of a few, from a list, or by typing. */
export type Control =
  | { kind: "few"; options: { value: string; name: string }[] }
  | { kind: "many"; values: () => string[]; none?: { value: string; name: string } }
  | { kind: "number"; min: number; max: number; unit: string; units: string }
  | { kind: "hours"; example: string }
  | { kind: "views" };

export interface SettingWords {
  name: SettingName;
  label: string;
  /** What it does, in a sentence. */
  does: string;
  control: Control;
}

/** The half hours of a stretch of the day, its last hour left out. */
const halfHours = (from: number, to: number) =>
  Array.from({ length: (to - from) * 2 }, (_, i) => from * 60 + i * 30).map(
    (m) => `${String(Math.floor(m / 60)).padStart(2, "0")}:${String(m % 60).padStart(2, "0")}`,
  );
/** What a word for a part of the day means. */
const partOfDay = (name: SettingName, word: string, from: number, to: number, does = "") => ({
  name,
  label: `“${word}” is`,
  does,
  control: { kind: "many", values: () => halfHours(from, to) } satisfies Control,
});

/** One of a few values, each by its name. */
const few = (names: Record<string, string>): Control => ({
  kind: "few",
  options: Object.entries(names).map(([value, name]) => ({ value, name })),
});

/** What holds until the server has said what does; settings.spec holds it to the server's. */
export const defaultValues: Record<SettingName, string> = {
  zone: "machine",
  dayStart: "00:00",
  weekStart: "monday",
  dateOrder: "day-first",
  look: "system",
  urgentDays: "3",
  singleKeys: "on",
  reasons: "hidden",
  rows: "roomy",
  views: allViews.join(","),
  marks: "tag",
  reviewedDaily: "never",
  reviewedWeekly: "never",
  reviewedMonthly: "never",
  firstThing: "09:00",
  morning: "09:00",
  afternoon: "14:00",
  evening: "18:00",
  tonight: "20:00",
  hoursMonday: "09:00-12:30, 13:30-17:30",
  hoursTuesday: "09:00-12:30, 13:30-17:30",
  hoursWednesday: "09:00-12:30, 13:30-17:30",
  hoursThursday: "09:00-12:30, 13:30-17:30",
  hoursFriday: "09:00-12:30, 13:30-17:30",
  hoursSaturday: "10:00-12:00",
  hoursSunday: "10:00-11:00",
  hoursOn: "none",
  ownHoursMonday: "18:00-21:00",
  ownHoursTuesday: "18:00-21:00",
  ownHoursWednesday: "18:00-21:00",
  ownHoursThursday: "18:00-21:00",
  ownHoursFriday: "18:00-21:00",
  ownHoursSaturday: "10:00-18:00",
  ownHoursSunday: "10:00-18:00",
  ownHoursOn: "none",
  peak: "10:00-12:00",
  assumed: "30",
  reminderHour: "09:00",
  quietHours: "none",
  ringsPaused: "no",
  cards: "on",
  browserNotifications: "on",
  desktopNotifications: "on",
  sound: "tap",
  copies: "14",
  csvColumns: "none",
};

/** The page of settings: its parts, and what each of them holds. */
export const settingGroups: { name: string; at: string; settings: SettingWords[] }[] = [
  {
    name: "Days and weeks",
    at: "days",
    settings: [
      {
        name: "zone",
        label: "Time zone",
        does: "Decides what day it is, and when a time of day comes.",
        control: {
          kind: "many",
          values: () => Intl.supportedValuesOf("timeZone"),
          none: { value: "machine", name: "the machine’s" },
        },
      },
      {
        name: "dayStart",
        label: "A day begins at",
        does: "For those who work past midnight: until then it is still the day before.",
        control: { kind: "many", values: () => [...halfHours(0, 6), "06:00"] },
      },
      {
        name: "weekStart",
        label: "Weeks begin on",
        does: "“End of week” is the day before. Week numbers stay those of ISO 8601.",
        control: few({ monday: "Monday", sunday: "Sunday" }),
      },
    ],
  },
  {
    name: "Working hours",
    at: "hours",
    settings: [
      ...weekdays.map((day): SettingWords => ({
        name: `hours${day}`,
        label: day,
        does:
          day === "Monday"
            ? "How much a day can hold is reckoned from them. Several stretches have commas between."
            : "",
        control: { kind: "hours", example: "09:00-12:30, 13:30-17:30" },
      })),
      {
        name: "hoursOn",
        label: "Single dates",
        does: "Days off, short and long ones, in the place of the weekday’s hours.",
        control: { kind: "hours", example: "2026-12-24 09:00-12:00; 2026-12-25 none" },
      },
      {
        name: "peak",
        label: "Peak hours",
        does: "When deep work goes best: it is laid there first.",
        control: { kind: "hours", example: "10:00-12:00" },
      },
      {
        name: "assumed",
        label: "Without an estimate",
        does: "How long a to-do is taken to be that has none. Such minutes are drawn dotted.",
        control: { kind: "number", min: 1, max: 480, unit: "minute", units: "minutes" },
      },
    ],
  },
  {
    name: "Own hours",
    at: "own-hours",
    settings: [
      ...weekdays.map((day): SettingWords => ({
        name: `ownHours${day}`,
        label: day,
        does:
          day === "Monday"
            ? "Hours for your own life. A shelf takes them when its menu says so; working hours come off them."
            : "",
        control: { kind: "hours", example: "18:00-21:00" },
      })),
      {
        name: "ownHoursOn",
        label: "Single dates",
        does: "Own hours of single dates, in the place of the weekday’s.",
        control: { kind: "hours", example: "2026-12-24 none; 2026-12-26 10:00-20:00" },
      },
    ],
  },
  {
    name: "Reminders",
    at: "reminders",
    settings: [
      {
        name: "reminderHour",
        label: "Without a time",
        does: "When a reminder comes that names a day alone, or comes before one.",
        control: { kind: "many", values: () => halfHours(0, 24) },
      },
      {
        name: "quietHours",
        label: "Quiet hours",
        does: "Two times such as 22:00-07:00. What comes between them rings once at their end.",
        control: { kind: "hours", example: "22:00-07:00" },
      },
      {
        name: "cards",
        label: "In the page",
        does: "A reminder shows in a line above the sheet of every window in sight.",
        control: few({ on: "On", off: "Off" }),
      },
      {
        name: "browserNotifications",
        label: "By the browser",
        does: "Where no window is in sight. It lives only while the browser does.",
        control: few({ on: "On", off: "Off" }),
      },
      {
        name: "desktopNotifications",
        label: "On the desktop",
        does: "Where no window is open, by the machine that Tin Cup runs on.",
        control: few({ on: "On", off: "Off" }),
      },
      {
        name: "sound",
        label: "Sound",
        does: "Heard once, in one window, when a reminder comes. Choosing one plays it.",
        control: few(soundNames),
      },
    ],
  },
  {
    name: "What you type",
    at: "typing",
    settings: [
      {
        name: "dateOrder",
        label: "A date in figures",
        does: "How 4/12 is read. What was read is always shown before it is kept.",
        control: few({ "day-first": "4 December", "month-first": "April 12" }),
      },
      partOfDay(
        "firstThing",
        "First thing",
        4,
        12,
        "Words for a time of day that a sentence may have: “tomorrow evening”.",
      ),
      partOfDay("morning", "Morning", 4, 12),
      partOfDay("afternoon", "Afternoon", 12, 18),
      partOfDay("evening", "Evening", 15, 24),
      partOfDay("tonight", "Tonight", 15, 24, "“At night” and “every night” too."),
      {
        name: "singleKeys",
        label: "Single keys",
        does: "Letters and digits act on rows, outside text fields. ? lists them.",
        control: few({ on: "On", off: "Off" }),
      },
    ],
  },
  {
    name: "Look",
    at: "look",
    settings: [
      {
        name: "look",
        label: "Light or dark",
        does: "As the system has it, or always the same.",
        control: few({ system: "As the system", light: "Light", dark: "Dark" }),
      },
      {
        name: "rows",
        label: "Rows",
        does: "Close ones show more at once. Under a finger they stay as high as it wants.",
        control: few({ roomy: "Roomy", close: "Close" }),
      },
      {
        name: "reasons",
        label: "Reasons in Ready",
        does: "Each row says why it stands where it does.",
        control: few({ hidden: "Hidden", shown: "Shown" }),
      },
      {
        name: "marks",
        label: "Marks in the week",
        does: "By what the slips there are underlined.",
        control: few({ tag: "Tag", list: "List", priority: "Priority" }),
      },
      {
        name: "urgentDays",
        label: "Urgent is within",
        does: "Days from today, in a two-by-two of important and urgent.",
        control: { kind: "number", min: 1, max: 60, unit: "day", units: "days" },
      },
    ],
  },
  {
    name: "Index",
    at: "index",
    settings: [
      {
        name: "views",
        label: "Views in the index",
        does: "Which of them stand there, and in which order. g finds all the same.",
        control: { kind: "views" },
      },
    ],
  },
  {
    name: "Copies",
    at: "copies",
    settings: [
      {
        name: "copies",
        label: "Daily copies that are kept",
        does: "Each day with a change the data file is copied, with the attached files, and the copy looked through. With 0 none is made, and those that are there go with the next day.",
        control: { kind: "number", min: 0, max: 90, unit: "copy", units: "copies" },
      },
    ],
  },
];

/** A value in the words of its control. */
export function valueWords(s: SettingWords, value: string): string {
  if (value === "machine") return "the machine’s";
  if (s.control.kind === "views") return "all of them";
  if (s.control.kind === "number")
    return `${value} ${value === "1" ? s.control.unit : s.control.units}`;
  const option = s.control.kind === "few" && s.control.options.find((o) => o.value === value);
  return option ? option.name : value;
}
