import { perLocale } from "./locale";

/** Days as they are kept are days of the calendar, the same everywhere; moments are the reader's own. */
const at = (iso: string): Date => new Date(iso.length === 10 ? `${iso}T12:00` : iso);

const days = perLocale((own) => new Intl.DateTimeFormat(own, { dateStyle: "medium" }));
const moments = perLocale(
  (own) => new Intl.DateTimeFormat(own, { dateStyle: "medium", timeStyle: "short", hourCycle: "h23" }),
);
const shortDays = perLocale((own) => new Intl.DateTimeFormat(own, { day: "numeric", month: "short" }));
const weekdays = perLocale((own) => {
  const format = new Intl.DateTimeFormat(own, { weekday: "long", timeZone: "UTC" });
  const monday = Date.UTC(2024, 0, 1);
  return Array.from({ length: 7 }, (_, day) => format.format(monday + day * 86_400_000));
});

const PATTERN: Partial<Record<Intl.DateTimeFormatPartTypes, string>> = {
  day: "D",
  month: "MMM",
  year: "YYYY",
};
const patterns = perLocale((own) =>
  new Intl.DateTimeFormat(own, { dateStyle: "medium" })
    .formatToParts(at("2026-03-02"))
    .map(({ type, value }) => PATTERN[type] ?? value)
    .join(""),
);
const months = perLocale((own) => {
  const format = new Intl.DateTimeFormat(own, { dateStyle: "medium", timeZone: "UTC" });
  const name = (month: number) =>
    format.formatToParts(Date.UTC(2026, month, 15)).find(({ type }) => type === "month")?.value ?? "";
  return Array.from({ length: 12 }, (_, month) => name(month));
});

/** How [`day`] writes a day, as a pattern: "D MMM YYYY" or "MMM D, YYYY". */
export const dayPattern = (): string => patterns();

/** The months as [`day`] writes them. */
export const shortMonths = (): string[] => months();

/** A calendar day, as in "2 Mar 2026" or "Mar 2, 2026". */
export const day = (iso: string): string => days().format(at(iso));

/** A moment, as in "2 Mar 2026, 14:05". */
export const moment = (iso: string): string => moments().format(at(iso));

/** A calendar day without the year, where the year is clear. */
export const shortDay = (iso: string): string => shortDays().format(at(iso));

/** The name of a weekday, Monday = 1. */
export const dayName = (weekday: number): string => weekdays()[weekday - 1] ?? "";

/** Today here, as days are kept. */
export function today(): string {
  const now = new Date();
  return new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 10);
}
