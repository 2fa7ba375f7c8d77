import type { TFunction } from "i18next";
import type { Brief } from "./model";

/** What a field of a brief is called; regions and schools by their ids. */
export function briefFieldName(field: string, part: string, t: TFunction, length: string): string {
  const names: Record<keyof Brief, string> = {
    name: t("brief.name"),
    sex: t("brief.sex"),
    birth_date: t("brief.birth"),
    height_cm: t("brief.height", { unit: length }),
    dominant_hand: t("brief.hand"),
    experience: t("brief.experience"),
    look: t("brief.goal"),
    look_weights: t("brief.weightNow", { name: part }),
    days_per_week: t("brief.days"),
    minutes_per_session: t("brief.minutes"),
    max_exercises_per_session: t("brief.exercises"),
    equipment: t("brief.equipment"),
    home: t("brief.places.home"),
    pain: t("brief.care"),
    screens: t("brief.care"),
    excluded_exercises: t("brief.excluded"),
    schools: `${t("brief.schools")}: ${part}`,
    readiness: t("brief.readiness"),
    clearance: t("brief.recordClearance"),
    measures: t("brief.measures"),
    tags: t("brief.tags"),
    photo_consent: t("consent.title"),
  };
  return names[field as keyof Brief] ?? field;
}
