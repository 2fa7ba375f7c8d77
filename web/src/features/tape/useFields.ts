import type { KeyboardEvent, RefObject } from "react";
import { flushSync } from "react-dom";
import { useKeys } from "../../shared/ui/keys";
import type { Place } from "./model";

interface Sheet {
  grid: RefObject<HTMLElement | null>;
  /** Where the tape's level is typed. */
  level: RefObject<HTMLInputElement | null>;
  everywhere: Place[];
  onPlace: (place: Place) => void;
  /** A field is left: what was typed is kept. */
  onLeave: () => void;
}

/** From field to field without a mouse: Enter goes on, arrows go to the next row, F2 to the tape's level. */
export function useFields({ grid, level, everywhere, onPlace, onLeave }: Sheet) {
  const fields = () => [...(grid.current?.querySelectorAll<HTMLInputElement>("input[data-cell]") ?? [])];
  /** To a field; on a phone its site has to be on the screen first. */
  const go = (field: HTMLInputElement | undefined) => {
    const place = everywhere.find(({ key }) => key === field?.dataset.cell?.split("|")[0]);
    if (place) flushSync(() => onPlace(place));
    field?.focus();
  };
  const goOn = (from: Element | null, by: 1 | -1 = 1) => {
    onLeave();
    go(fields()[fields().indexOf(from as HTMLInputElement) + by]);
  };
  useKeys({ firstEmpty: () => go(fields().find((field) => !field.value) ?? fields()[0]) });
  const onKey = (event: KeyboardEvent) => {
    const here = fields().indexOf(event.target as HTMLInputElement);
    if (here < 0) return;
    if (event.key === "Enter") {
      event.preventDefault();
      goOn(event.target as Element, event.shiftKey ? -1 : 1);
    } else if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      go(rowStep(fields(), here, event.key === "ArrowDown" ? 1 : -1));
    } else if (event.key === "F2" && level.current) {
      event.preventDefault();
      level.current.focus();
    }
  };
  return { fields, go, goOn, onKey };
}

/** The first field of the next or previous row. */
function rowStep(fields: HTMLInputElement[], here: number, by: 1 | -1): HTMLInputElement | undefined {
  const siteOf = (field: HTMLInputElement | undefined) => field?.dataset.cell?.split("|")[0];
  const own = siteOf(fields[here]);
  if (by > 0) return fields.find((field, i) => i > here && siteOf(field) !== own);
  const before = siteOf(fields.findLast((field, i) => i < here && siteOf(field) !== own));
  return fields.find((field) => siteOf(field) === before);
}
