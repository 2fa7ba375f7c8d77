import type { TFunction } from "i18next";
import { type Quantities, shownText } from "../../shared/format";
import { type Cell, cell, levelCell, type Place, READINGS, type Side, WEIGHT } from "./model";

/** What a reading's field is called. */
export function readingName(
  place: Place,
  side: Side | undefined,
  reading: number,
  t: TFunction,
  length: string,
): string {
  return t("tape.reading", {
    site: place.name,
    side: side ? t(`tape.sideOf.${side}`) : "",
    number: reading + 1,
    unit: place.unit === "cm" ? length : place.unit,
  });
}

/** What stands in any field of the sheet, as it is read; with its unit where the field's name does not say it. */
export function cellText({ length, mass }: Quantities, key: Cell, text: string): string {
  if (key === WEIGHT) return `${shownText(text, mass)} ${mass.unit}`;
  return key.startsWith("fold:") ? text : shownText(text, length);
}

/** What any field of the sheet is called. */
export function cellName(places: Place[], key: Cell, t: TFunction, length: string): string {
  if (key === WEIGHT) return t("tape.weight");
  for (const place of places) {
    if (key === levelCell(place.id)) return t("tape.levelOf", { site: place.name, unit: length });
    for (const side of place.sides)
      for (let reading = 0; reading < READINGS; reading++)
        if (key === cell(place.key, side, reading)) return readingName(place, side, reading, t, length);
  }
  return key;
}
