import dayjs from "dayjs";

/** A calendar day, as in "2 Mar 2026". */
export const day = (iso: string): string => dayjs(iso).format("D MMM YYYY");

/** A calendar day without the year, where the year is clear. */
export const shortDay = (iso: string): string => dayjs(iso).format("D MMM");

/** The name of a weekday, Monday = 1, in the page's language. */
export function dayName(weekday: number): string {
  const monday = Date.UTC(2024, 0, 1);
  const format = new Intl.DateTimeFormat(document.documentElement.lang || "en", {
    weekday: "long",
    timeZone: "UTC",
  });
  return format.format(monday + (weekday - 1) * 86_400_000);
}

export const today = (): string => dayjs().format("YYYY-MM-DD");
