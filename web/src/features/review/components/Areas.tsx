import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { chance, percent, signed } from "../../../shared/format";
import styles from "./Review.module.css";

type Area = Schemas["AreaReviewView"];

const COLOUR: Record<Area["movement"], string | undefined> = {
  gained: "var(--ahead)",
  lost: "var(--behind)",
  "with-the-body": undefined,
  "not-moved": "var(--muted)",
};

/** Each part of the body in one line: moved, moved with the whole body, or not, and how sure. */
export function Areas({ areas }: { areas: Area[] }) {
  const { t } = useTranslation();
  return (
    <ul className={styles.areas} aria-label={t("review.areas")}>
      {areas.map(({ area, name, movement, sure, with_the_body_pct }) => (
        <li key={area}>
          <strong>{name}</strong>
          <span style={{ color: COLOUR[movement] }}>
            {t(`review.movement.${movement}`, {
              percent: chance(sure ?? 0),
              body: signed(with_the_body_pct, percent),
            })}
          </span>
        </li>
      ))}
    </ul>
  );
}
