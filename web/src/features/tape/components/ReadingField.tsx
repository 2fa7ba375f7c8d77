import { useTranslation } from "react-i18next";
import { cell, type Side, type Site } from "../model";
import type { Editor } from "../useSheetEditor";

interface Props {
  site: Site;
  side?: Side;
  reading: number;
  editor: Editor;
}

/** One reading. A plain input: nothing between the coach's fingers and the number. */
export function ReadingField({ site, side, reading, editor }: Props) {
  const { t } = useTranslation();
  const key = cell(site.id, side, reading);
  const wrong = editor.problems[key] !== undefined || editor.unreadable.includes(key);
  const label = t("tape.reading", {
    site: site.name,
    side: side ? t(`tape.sideOf.${side}`) : "",
    number: reading + 1,
  });
  return (
    <input
      data-cell={key}
      inputMode="decimal"
      autoComplete="off"
      aria-label={label}
      aria-invalid={wrong}
      value={editor.texts[key] ?? ""}
      onChange={(event) => editor.type(key, event.target.value)}
      onBlur={editor.flush}
      onFocus={(event) => event.target.select()}
    />
  );
}
