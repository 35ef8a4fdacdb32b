import type { Choice } from "@/server/client";

/** Which day of a month a person chooses. */
export type Pattern = "day" | "weekday" | "last";
export type Ending = "never" | "until" | "count";

export const weekdays = ["MO", "TU", "WE", "TH", "FR", "SA", "SU"] as const;

export const weekdayNames: Record<(typeof weekdays)[number], string> = {
  MO: "Monday",
  TU: "Tuesday",
  WE: "Wednesday",
  TH: "Thursday",
  FR: "Friday",
  SA: "Saturday",
  SU: "Sunday",
};

export const unitNames: Record<Choice["unit"], string> = {
  DAILY: "day",
  WEEKLY: "week",
  MONTHLY: "month",
  YEARLY: "year",
};

export const ordinals: Record<string, string> = {
  "1": "1st",
  "2": "2nd",
  "3": "3rd",
  "4": "4th",
  "5": "5th",
  "-1": "last",
};

export const monthNames = [
  "January",
  "February",
  "March",
  "April",
  "May",
  "June",
  "July",
  "August",
  "September",
  "October",
  "November",
  "December",
];
