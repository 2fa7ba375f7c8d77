import { useTranslation } from "react-i18next";
import { useQuantities } from "../../../shared/format";
import { TypedInput } from "../../../shared/ui";
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
  const { length } = useQuantities();
  const wrong = editor.problems[key] !== undefined || editor.unreadable.includes(key);
  return (
    <TypedInput
      data-cell={key}
      data-device={place.device}
      aria-label={readingName(place, side, reading, t, length.unit)}
      aria-invalid={wrong}
      quantity={place.unit === "cm" ? length : undefined}
      text={editor.texts[key] ?? ""}
      onText={(text) => editor.type(key, text)}
      onBlur={editor.document.flush}
      onFocus={(event) => event.target.select()}
    />
  );
}
