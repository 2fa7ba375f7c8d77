import { Button, Input } from "antd";
import { type KeyboardEvent, useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { shortDay } from "../../../shared/format";
import { SideMark } from "../../../shared/ui";
import type { Site } from "../model";
import { useSheetEditor } from "../useSheetEditor";
import { SaveState } from "./SaveState";
import { SiteFigure } from "./SiteFigure";
import { SiteRow } from "./SiteRow";
import styles from "./TapeSheet.module.css";

interface Props {
  roundId: string;
  sites: Site[];
  sheet: Schemas["TapeSheet"];
  refetch: () => Promise<Schemas["TapeSheet"] | undefined>;
}

/** The sheet, made for typing: Enter goes on, arrows move between rows, everything is checked and saved on the way. */
export function TapeSheet({ roundId, sites, sheet, refetch }: Props) {
  const { t } = useTranslation();
  const editor = useSheetEditor(roundId, sites, sheet, refetch);
  const [at, setAt] = useState<Site>();
  const grid = useRef<HTMLFieldSetElement>(null);

  const fields = () => [...(grid.current?.querySelectorAll<HTMLInputElement>("input[data-cell]") ?? [])];
  const onKey = (event: KeyboardEvent) => {
    const here = fields().indexOf(event.target as HTMLInputElement);
    if (here < 0) return;
    if (event.key === "Enter") {
      event.preventDefault();
      editor.flush();
      fields()[here + (event.shiftKey ? -1 : 1)]?.focus();
    } else if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      rowStep(fields(), here, event.key === "ArrowDown" ? 1 : -1)?.focus();
    }
  };

  const girths = sites.filter(({ kind }) => kind === "girth");
  const breadths = sites.filter(({ kind }) => kind === "breadth");
  const row = (site: Site) => (
    <SiteRow key={site.id} site={site} sheet={sheet} editor={editor} onFocus={() => setAt(site)} />
  );
  return (
    <div className={styles.tape}>
      <fieldset ref={grid} className={styles.sheet} onKeyDown={onKey} aria-label={t("round.steps.tape")}>
        <div className={styles.bar}>
          <Input
            addonBefore={t("tape.measuredBy")}
            value={editor.holder}
            className={styles.holder}
            aria-label={t("tape.measuredBy")}
            onChange={(event) => editor.hold(event.target.value)}
          />
          <SaveState editor={editor} />
        </div>
        {editor.conflict && (
          <div className={styles.conflict} role="alert">
            <span>
              {editor.conflict.why}. {t("tape.differ", { count: editor.conflict.differ })}
            </span>
            <Button onClick={editor.conflict.takeTheirs}>{t("tape.takeTheirs")}</Button>
            <Button type="primary" onClick={editor.conflict.keepMine}>
              {t("tape.keepMine")}
            </Button>
          </div>
        )}
        <div className={styles.columns} aria-hidden="true">
          <span>{t("tape.site")}</span>
          <span>
            <SideMark side="left" label={t("tape.left")} />
          </span>
          <span>
            <SideMark side="right" label={t("tape.right")} />
          </span>
          <span>{sheet.earlier_date ? t("tape.lastTime", { date: shortDay(sheet.earlier_date) }) : ""}</span>
          <span>{t("tape.lean")}</span>
        </div>
        {girths.map(row)}
        <h2 className={styles.group}>{t("tape.breadths")}</h2>
        {breadths.map(row)}
      </fieldset>
      <aside className={styles.aside}>
        <SiteFigure site={at ?? girths[0]} />
        <p className="quiet">{t("tape.hint")}</p>
        <p className="quiet">{t("tape.legend")}</p>
      </aside>
    </div>
  );
}

/** The first field of the next or previous row. */
function rowStep(fields: HTMLInputElement[], here: number, by: 1 | -1): HTMLInputElement | undefined {
  const siteOf = (field: HTMLInputElement | undefined) => field?.dataset.cell?.split("|")[0];
  const own = siteOf(fields[here]);
  if (by > 0) return fields.find((field, i) => i > here && siteOf(field) !== own);
  const before = siteOf(fields.findLast((field, i) => i < here && siteOf(field) !== own));
  return fields.find((field) => siteOf(field) === before);
}
