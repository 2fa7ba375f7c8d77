import { useTranslation } from "react-i18next";
import type { Kind } from "../../../shared/judging";

/** The word of a stop of the scale. */
export function useWord(): (kind: Kind, value: number) => string {
  const { t } = useTranslation();
  return (kind, value) => {
    const words = t(`judging.stops.${kind === "standing" ? "standing" : "sides"}`, {
      returnObjects: true,
    }) as string[];
    return words[kind === "standing" ? value + 2 : 2 - value] ?? "";
  };
}
