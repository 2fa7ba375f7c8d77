import { useTranslation } from "react-i18next";
import { cell, type Place, type Side } from "../model";
import type { Editor } from "../useSheetEditor";

interface Props {
  place: Place;
  side?: Side;
  reading: number;
  editor: Editor;
}

/** One reading. A plain input: nothing between the coach's fingers and the number. */
export function ReadingField({ place, side, reading, editor }: Props) {
  const { t } = useTranslation();
  const key = cell(place.key, side, reading);
  const wrong = editor.problems[key] !== undefined || editor.unreadable.includes(key);
  const label = t("tape.reading", {
    site: place.name,
    side: side ? t(`tape.sideOf.${side}`) : "",
    number: reading + 1,
    unit: place.unit,
  });
  return (
    <input
      className="typed"
      data-cell={key}
      data-device={place.device}
      inputMode="decimal"
      autoComplete="off"
      aria-label={label}
      aria-invalid={wrong}
      value={editor.texts[key] ?? ""}
      onChange={(event) => editor.type(key, event.target.value)}
      onBlur={editor.document.flush}
      onFocus={(event) => event.target.select()}
    />
  );
}
