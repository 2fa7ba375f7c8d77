import { useTranslation } from "react-i18next";
import { readingName } from "../cellName";
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
  return (
    <input
      className="typed"
      data-cell={key}
      data-device={place.device}
      inputMode="decimal"
      autoComplete="off"
      aria-label={readingName(place, side, reading, t)}
      aria-invalid={wrong}
      value={editor.texts[key] ?? ""}
      onChange={(event) => editor.type(key, event.target.value)}
      onBlur={editor.document.flush}
      onFocus={(event) => event.target.select()}
    />
  );
}
