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
  | "views";

/** How a setting is chosen: one of a few, from a list, or by typing. */
export type Control =
  | { kind: "few"; options: { value: string; name: string }[] }
  | { kind: "many"; values: () => string[]; none?: { value: string; name: string } }
  | { kind: "number"; min: number; max: number }
  | { kind: "views" };

export interface SettingWords {
  name: SettingName;
  label: string;
  /** What it does, in a sentence. */
  does: string;
  control: Control;
}

const halfHours = Array.from({ length: 13 }, (_, i) => i * 30).map(
  (m) => `${String(Math.floor(m / 60)).padStart(2, "0")}:${String(m % 60).padStart(2, "0")}`,
);

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
        control: { kind: "many", values: () => halfHours },
      },
      {
        name: "weekStart",
        label: "Weeks begin on",
        does: "“End of week” is the day before. Week numbers stay those of ISO 8601.",
        control: {
          kind: "few",
          options: [
            { value: "monday", name: "Monday" },
            { value: "sunday", name: "Sunday" },
          ],
        },
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
        control: {
          kind: "few",
          options: [
            { value: "day-first", name: "4 December" },
            { value: "month-first", name: "April 12" },
          ],
        },
      },
      {
        name: "singleKeys",
        label: "Single keys",
        does: "Letters and digits act on rows, outside text fields. ? lists them.",
        control: {
          kind: "few",
          options: [
            { value: "on", name: "On" },
            { value: "off", name: "Off" },
          ],
        },
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
        control: {
          kind: "few",
          options: [
            { value: "system", name: "As the system" },
            { value: "light", name: "Light" },
            { value: "dark", name: "Dark" },
          ],
        },
      },
      {
        name: "rows",
        label: "Rows",
        does: "Close ones show more at once. Under a finger they stay as high as it wants.",
        control: {
          kind: "few",
          options: [
            { value: "roomy", name: "Roomy" },
            { value: "close", name: "Close" },
          ],
        },
      },
      {
        name: "reasons",
        label: "Reasons in Ready",
        does: "Each row says why it stands where it does.",
        control: {
          kind: "few",
          options: [
            { value: "hidden", name: "Hidden" },
            { value: "shown", name: "Shown" },
          ],
        },
      },
      {
        name: "urgentDays",
        label: "Urgent is within",
        does: "Days from today, in a two-by-two of important and urgent.",
        control: { kind: "number", min: 1, max: 60 },
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
];

/** A value in the words of its control. */
export function valueWords(s: SettingWords, value: string): string {
  if (value === "machine") return "the machine’s";
  if (s.control.kind === "views") return "all of them";
  if (s.control.kind === "number") return value === "1" ? "1 day" : `${value} days`;
  const option = s.control.kind === "few" && s.control.options.find((o) => o.value === value);
  return option ? option.name : value;
}
