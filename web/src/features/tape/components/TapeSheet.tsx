import { Button, Input } from "antd";
import { useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { shortDay, useQuantities } from "../../../shared/format";
import { ConflictNote, SaveState, useUndoKeys } from "../../../shared/save";
import { SideMark, TypedInput, Wrong } from "../../../shared/ui";
import { useNarrow } from "../../../shared/ui/useMedia";
import {
  cellsOf,
  type Fold,
  isFold,
  levelCell,
  ordered,
  type Place,
  placeOfFold,
  placeOfSite,
  type Site,
  WEIGHT,
} from "../model";
import { useDevices } from "../useDevices";
import { useFields } from "../useFields";
import { useSheetEditor } from "../useSheetEditor";
import { CsvDialog } from "./CsvDialog";
import { DeviceBar } from "./DeviceBar";
import { OrderDialog } from "./OrderDialog";
import { SiteFigure } from "./SiteFigure";
import { SiteRow, said } from "./SiteRow";
import { SiteSteps } from "./SiteSteps";
import styles from "./TapeSheet.module.css";

interface Props {
  roundId: string;
  sites: Site[];
  folds: Fold[];
  order?: Schemas["TapeOrder"];
  sheet: Schemas["TapeSheet"];
  refetch: () => Promise<Schemas["TapeSheet"] | undefined>;
}

/** The sheet, made for typing: Enter goes on, arrows move between rows, everything is checked and saved on the way. */
export function TapeSheet({ roundId, sites, folds, order, sheet, refetch }: Props) {
  const { t } = useTranslation();
  const { length, mass, said: own } = useQuantities();
  const editor = useSheetEditor(roundId, sites, folds, sheet, refetch);
  const { document } = editor;
  const [at, setAt] = useState<Place>();
  const [open, setOpen] = useState<"csv" | "order">();
  const narrow = useNarrow();
  const grid = useRef<HTMLFieldSetElement>(null);
  const level = useRef<HTMLInputElement>(null);

  const lines = ordered(sites, order, editor.texts);
  const girths = lines.filter(({ kind }) => kind === "girth").map(placeOfSite);
  const breadths = lines.filter(({ kind }) => kind === "breadth").map(placeOfSite);
  const skin = folds.map((fold) => placeOfFold(fold, sheet.folds));
  const everywhere = [...girths, ...skin, ...breadths];
  const { fields, goOn, onKey } = useFields({
    grid,
    level,
    everywhere,
    onPlace: setAt,
    onLeave: document.flush,
  });
  const devices = useDevices(sheet, {
    focused: () => fields().find((field) => field === window.document.activeElement),
    empty: (device) => fields().find((field) => field.dataset.device === device && !field.value),
    put: (field, text) => {
      editor.type(field.dataset.cell ?? "", text);
      goOn(field);
    },
  });
  useUndoKeys(document);
  const row = (place: Place) => (
    <SiteRow
      key={place.key}
      place={place}
      here={place.key === shown?.key}
      levelFrom={sites.find(({ id }) => id === place.id)?.level_from ?? undefined}
      sheet={sheet}
      editor={editor}
      onFocus={() => {
        setAt(place);
        devices.ask(place);
      }}
    />
  );
  const shown = at ?? girths[0];
  const levelFrom = shown && !isFold(shown) ? sites.find(({ id }) => id === shown.id)?.level_from : undefined;
  const earlierLevel = shown && sheet.earlier_levels_cm[shown.id];
  const wrong = Object.keys(editor.problems).length + editor.unreadable.length;
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
          <label className={styles.weight}>
            {t("tape.weight")}{" "}
            <TypedInput
              data-cell={WEIGHT}
              data-device="scale"
              aria-invalid={said(WEIGHT, editor, t).length > 0}
              quantity={mass}
              text={editor.texts[WEIGHT] ?? ""}
              onText={(text) => editor.type(WEIGHT, text)}
              onBlur={document.flush}
            />{" "}
            {mass.unit}
          </label>
          <SaveState {...document} wrong={wrong} />
          <span className={styles.tools}>
            <Button type="text" onClick={() => setOpen("order")}>
              {t("tape.order")}
            </Button>
            <Button type="text" onClick={() => setOpen("csv")}>
              {t("tape.csv")}
            </Button>
          </span>
        </div>
        {said(WEIGHT, editor, t).map((says) => (
          <Wrong key={says}>{own(says)}</Wrong>
        ))}
        <ConflictNote conflict={document.conflict} />
        {narrow && shown && (
          <SiteSteps
            places={everywhere}
            at={shown}
            filled={(place) => cellsOf(place).some((key) => editor.texts[key])}
            onGo={setAt}
          />
        )}
        <div className={styles.columns} aria-hidden="true">
          <span>{t("tape.siteIn", { unit: length.unit })}</span>
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
        <h2 className={styles.group}>{t("tape.folds")}</h2>
        {skin.map(row)}
        <h2 className={styles.group}>{t("tape.breadths")}</h2>
        {breadths.map(row)}
      </fieldset>
      <aside className={styles.aside} aria-label={t("tape.beside")}>
        <SiteFigure place={shown}>
          {levelFrom && shown && (
            <label className={styles.level}>
              {t("tape.level")}{" "}
              <TypedInput
                ref={level}
                aria-label={t("tape.levelOf", { site: shown.name, from: levelFrom, unit: length.unit })}
                aria-keyshortcuts="F2"
                aria-invalid={said(levelCell(shown.id), editor, t).length > 0}
                placeholder={earlierLevel === undefined ? undefined : length.text(earlierLevel)}
                quantity={length}
                text={editor.texts[levelCell(shown.id)] ?? ""}
                onText={(text) => editor.type(levelCell(shown.id), text)}
                onBlur={document.flush}
                onKeyDown={(event) => {
                  if (event.key !== "Enter" && event.key !== "F2") return;
                  event.preventDefault();
                  fields()
                    .find((field) => field.dataset.cell?.startsWith(`${shown.key}|`))
                    ?.focus();
                }}
              />{" "}
              {length.unit} {levelFrom}
            </label>
          )}
        </SiteFigure>
        <DeviceBar devices={devices} />
        <p className="quiet">{t("tape.hint")}</p>
        <p className="quiet">{t("tape.legend")}</p>
      </aside>
      <OrderDialog sites={sites} order={order} open={open === "order"} onClose={() => setOpen(undefined)} />
      <CsvDialog
        open={open === "csv"}
        onClose={() => setOpen(undefined)}
        onTake={(texts) => {
          editor.fill(texts);
          setOpen(undefined);
        }}
      />
    </div>
  );
}
