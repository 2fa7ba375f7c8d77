import dayjs from "dayjs";

/** A calendar day, as in "2 Mar 2026". */
export const day = (iso: string): string => dayjs(iso).format("D MMM YYYY");

/** A moment, as in "2 Mar 2026, 14:05". */
export const moment = (iso: string): string => dayjs(iso).format("D MMM YYYY, HH:mm");

/** A calendar day without the year, where the year is clear. */
export const shortDay = (iso: string): string => dayjs(iso).format("D MMM");

/** Weekday names by language: making a format takes longer than all else on a page of days. */
const weekdays = new Map<string, string[]>();

/** The name of a weekday, Monday = 1, in the page's language. */
export function dayName(weekday: number): string {
  const language = document.documentElement.lang || "en";
  const known = weekdays.get(language) ?? weekdayNames(language);
  weekdays.set(language, known);
  return known[weekday - 1] ?? "";
}

function weekdayNames(language: string): string[] {
  const monday = Date.UTC(2024, 0, 1);
  const format = new Intl.DateTimeFormat(language, { weekday: "long", timeZone: "UTC" });
  return Array.from({ length: 7 }, (_, day) => format.format(monday + day * 86_400_000));
}

export const today = (): string => dayjs().format("YYYY-MM-DD");
