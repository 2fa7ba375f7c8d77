import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import styles from "./Review.module.css";

/** The same pose in both rounds. */
export function PicturePairs({ pairs }: { pairs: Schemas["PicturePair"][] }) {
  const { t } = useTranslation();
  const names = useNames();
  if (pairs.length === 0) return null;
  return (
    <div className={styles.pictures}>
      {pairs.map(({ pose, before, now }) => (
        <figure key={before}>
          <img src={`/api/v1/photos/${before}/thumb`} alt={`${names.pose(pose)}, ${t("review.before")}`} />
          <img src={`/api/v1/photos/${now}/thumb`} alt={`${names.pose(pose)}, ${t("review.now")}`} />
          <figcaption className="quiet">
            {names.pose(pose)}: {t("review.before")}, {t("review.now")}
          </figcaption>
        </figure>
      ))}
    </div>
  );
}
