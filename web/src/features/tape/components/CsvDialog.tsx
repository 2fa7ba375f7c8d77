import { Button, Input, Select } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { problemOf, type Schemas } from "../../../shared/api/client";
import { Dialog, Note, PickFiles, Rows, Wrong } from "../../../shared/ui";
import { useReadCsv } from "../api";
import { type Texts, textsOf } from "../model";
import styles from "./Dialogs.module.css";

type Preview = Schemas["CsvPreview"];
type Column = Schemas["CsvColumn"];

interface Props {
  open: boolean;
  onClose: () => void;
  onTake: (texts: Texts) => void;
}

const COLUMNS: Column[] = ["site", "side", "reading", "unit", "ignore"];
const UNITS: Schemas["CsvUnit"][] = ["usual", "cm", "mm", "in"];
/** Rows shown; of a long file those with something wrong come first. */
const ROWS = 60;

/** A CSV file read as a sheet: columns matched, every row checked, taken in whole or not at all. */
export function CsvDialog({ open, onClose, onTake }: Props) {
  const { t } = useTranslation();
  const reading = useReadCsv();
  const [text, setText] = useState("");
  const [unit, setUnit] = useState<Schemas["CsvUnit"]>("usual");
  const preview = text ? reading.data : undefined;
  const read = (text: string, unit: Schemas["CsvUnit"], columns?: Column[]) => {
    setText(text);
    setUnit(unit);
    if (text.trim()) reading.mutate({ body: { text, unit, columns } });
  };
  const count = preview ? preview.tape.length + preview.skinfolds.length : 0;
  return (
    <Dialog open={open} title={t("csv.title")} wide onClose={onClose}>
      <p className="quiet">{t("csv.hint")}</p>
      <div className={styles.foot}>
        <PickFiles
          accept=".csv,.txt,text/csv,text/plain"
          aria-label={t("csv.file")}
          onPick={async ([file]) => file && read(await file.text(), unit)}
        >
          <Button>{t("csv.file")}</Button>
        </PickFiles>
        <Select
          aria-label={t("csv.unit")}
          value={unit}
          style={{ width: 210 }}
          onChange={(next) => read(text, next, preview?.columns)}
          options={UNITS.map((value) => ({ value, label: t(`csv.units.${value}`) }))}
        />
      </div>
      <Input.TextArea
        className={styles.paste}
        aria-label={t("csv.paste")}
        placeholder={"site,side,reading 1,reading 2\narm-flexed,left,37.4,37.6"}
        value={text}
        onChange={({ target }) => read(target.value, unit)}
      />
      {reading.error && <Wrong>{problemOf(reading.error)?.detail ?? t("error.unknown")}</Wrong>}
      {preview && (
        <>
          <Verdict preview={preview} />
          <PreviewTable preview={preview} onColumns={(columns) => read(text, unit, columns)} />
          <div className={styles.foot}>
            <Button
              type="primary"
              disabled={count === 0}
              onClick={() => onTake(textsOf(preview.tape, preview.skinfolds))}
            >
              {t("csv.take", { count })}
            </Button>
            <span className="quiet">{count === 0 ? t("csv.nothing") : t("csv.undo")}</span>
          </div>
        </>
      )}
    </Dialog>
  );
}

function Verdict({ preview }: { preview: Preview }) {
  const { t } = useTranslation();
  if (preview.says.length === 0 && preview.wrong_rows === 0)
    return <p role="status">{t("csv.good", { count: preview.rows.length })}</p>;
  return (
    <Note wrong>
      {preview.says.map((says) => (
        <p key={says}>{says}.</p>
      ))}
      {preview.wrong_rows > 0 && (
        <p>{t("csv.wrong", { count: preview.wrong_rows, rows: preview.rows.length })}</p>
      )}
    </Note>
  );
}

function PreviewTable({ preview, onColumns }: { preview: Preview; onColumns: (columns: Column[]) => void }) {
  const { t } = useTranslation();
  const wrongFirst = [...preview.rows].sort((a, b) => Number(b.says.length > 0) - Number(a.says.length > 0));
  const shown = (preview.rows.length > ROWS ? wrongFirst : preview.rows).slice(0, ROWS);
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling area is reached by key
    <section className={styles.preview} tabIndex={0} aria-label={t("csv.preview")}>
      <Rows
        rows={shown}
        rowKey={({ line }) => `${line}`}
        marks={({ says }) => ({ "data-wrong": says.length > 0 })}
        columns={[
          { key: "line", title: t("csv.line"), numbers: true, of: ({ line }) => line },
          ...preview.columns.map((column, place) => ({
            key: `${place}`,
            title: (
              <>
                <Select
                  size="small"
                  aria-label={t("csv.column", { number: place + 1, heading: preview.headings[place] ?? "" })}
                  value={column}
                  style={{ width: 104 }}
                  onChange={(next) => onColumns(preview.columns.with(place, next))}
                  options={COLUMNS.map((value) => ({ value, label: t(`csv.columns.${value}`) }))}
                />
                <span className="quiet">{preview.headings[place]}</span>
              </>
            ),
            of: ({ cells }: Preview["rows"][number]) => cells[place],
          })),
          { key: "says", title: t("csv.says"), of: ({ says }) => says.join("; ") },
        ]}
      />
      {preview.rows.length > ROWS && (
        <p className="quiet">{t("csv.more", { shown: ROWS, rows: preview.rows.length })}</p>
      )}
    </section>
  );
}
