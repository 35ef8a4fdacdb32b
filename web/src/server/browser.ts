/** Whether dates are written with the day or the month first where a language is spoken. */
export function dateOrderOf(language: string): "day-first" | "month-first" {
  const parts = new Intl.DateTimeFormat(language, { day: "numeric", month: "numeric" })
    .formatToParts(new Date(2026, 10, 30))
    .map((p) => p.type);
  return parts.indexOf("month") < parts.indexOf("day") ? "month-first" : "day-first";
}

/** What a browser knows of weeks; older ones have it as a property. */
type WeekInfo = { firstDay: number };
type Knows = Intl.Locale & { getWeekInfo?: () => WeekInfo; weekInfo?: WeekInfo };

/** The day with which weeks begin where a language is spoken: Sunday, or else Monday. */
export function weekStartOf(language: string): "monday" | "sunday" {
  const locale = new Intl.Locale(language) as Knows;
  return (locale.getWeekInfo?.() ?? locale.weekInfo)?.firstDay === 7 ? "sunday" : "monday";
}
