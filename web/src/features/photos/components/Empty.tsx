import type { ReactNode } from "react";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { Note } from "../../../shared/ui";
import styles from "./Empty.module.css";

/** No pictures yet: how to take them, or why none may be. */
export function Empty({ refusal, bar }: { refusal?: string; bar: ReactNode }) {
  const { t } = useTranslation();
  return (
    <div className={styles.empty}>
      <h2>{t("photos.empty")}</h2>
      {refusal ? (
        <Note action={<Link to="../brief">{t("photos.toBrief")}</Link>}>
          {refusal.charAt(0).toUpperCase() + refusal.slice(1)}.
        </Note>
      ) : (
        <>
          <p>{t("photos.drop")}</p>
          <p className="quiet">{t("photos.howTo")}</p>
        </>
      )}
      {bar}
    </div>
  );
}
