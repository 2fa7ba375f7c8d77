import { Button } from "antd";
import { useTranslation } from "react-i18next";
import { useQuantities } from "../../../shared/format";
import type { Photo } from "../model";
import styles from "./Table.module.css";

interface Props {
  photo: Photo;
  /** What keeps it from being compared with the earlier one. */
  warnings?: string[];
  asks: boolean;
  /** Pictures of the round nobody has said it of. */
  others: number;
  onMirrored: (mirrored: boolean, all: boolean) => void;
}

/** What is doubtful about a picture, on the picture; and the one question only a person can answer. */
export function PhotoNotes({ photo, warnings = [], asks, others, onMirrored }: Props) {
  const { t } = useTranslation();
  const { said } = useQuantities();
  const failed = photo.measured?.quality.filter((check) => !check.ok).map((check) => check.says) ?? [];
  const why = photo.failure ?? photo.measured?.why_not;
  const doubts = [...(why ? [why] : []), ...failed, ...warnings];
  return (
    <>
      {photo.state === "waiting" && (
        <p className={styles.doubts} role="status">
          {t("photos.waitingLong")}
        </p>
      )}
      {doubts.length > 0 && (
        <ul className={styles.doubts}>
          {doubts.map((says) => (
            <li key={says}>{said(says)}</li>
          ))}
        </ul>
      )}
      {asks && typeof photo.mirrored !== "boolean" && photo.state === "seen" && (
        <fieldset className={styles.ask} data-handle>
          <strong>{t("photos.mirrorAsk")}</strong>
          <Button size="small" onClick={() => onMirrored(false, false)}>
            {t("photos.mirrorNo")}
          </Button>
          <Button size="small" onClick={() => onMirrored(true, false)}>
            {t("photos.mirrorYes")}
          </Button>
          {others > 1 && (
            <Button size="small" type="link" onClick={() => onMirrored(false, true)}>
              {t("photos.mirrorAll")}
            </Button>
          )}
        </fieldset>
      )}
    </>
  );
}
