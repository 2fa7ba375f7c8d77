import { useTranslation } from "react-i18next";
import { moment, useQuantities } from "../../../shared/format";
import { type EntryView, setsText } from "../model";
import styles from "./Phone.module.css";

/** Two versions of a part that did not see each other: both are kept, and somebody says which counts. */
export function SideBySide({
  of,
  versions,
  onChoose,
}: {
  /** What was logged twice. */
  of: string;
  versions: EntryView[];
  onChoose: (version: EntryView) => void;
}) {
  const { t } = useTranslation();
  const { mass } = useQuantities();
  return (
    <section className={styles.beside} aria-label={t("log.besideTitle", { of })}>
      <strong>{t("log.besideTitle", { of })}</strong>
      {versions.map((version) => {
        const { entry, written_by, written_at } = version;
        const sets = entry.part.kind === "exercise" ? setsText(mass, entry.part.sets) : t("log.wholeSession");
        return (
          <div key={entry.id}>
            <span>
              {sets || t("log.nothingDone")}{" "}
              <span className="quiet">
                {t("log.writtenBy", { name: written_by, at: moment(written_at) })}
              </span>
            </span>
            <button type="button" className={styles.plain} onClick={() => onChoose(version)}>
              {t("log.counts")}
            </button>
          </div>
        );
      })}
      <span className="quiet">{t("log.besideUntil")}</span>
    </section>
  );
}
