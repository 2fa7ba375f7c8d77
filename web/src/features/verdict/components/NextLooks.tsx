import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import type { Schemas } from "../../../shared/api/client";
import type { Assessment } from "../model";
import styles from "../pages/VerdictPage.module.css";

/** What would tell most per minute, each a way to where it is done; and whom sizes are judged by. */
export function NextLooks({ assessment }: { assessment: Assessment }) {
  const { t } = useTranslation();
  const { reference } = assessment;
  return (
    <>
      <h2>{t("verdict.next")}</h2>
      <ul className={styles.next}>
        {assessment.next.map((look) => (
          <li key={look.what}>
            <Link to={wayTo(look)}>{look.what}</Link>{" "}
            <span className="quiet">{t("verdict.minutes", { minutes: look.minutes })}</span>
          </li>
        ))}
      </ul>
      <p className={`quiet ${styles.source}`}>
        {t("verdict.source", {
          population: reference.population,
          n: reference.n,
          source: reference.source.split(";")[0],
        })}
      </p>
    </>
  );
}

function wayTo({ kind, region }: Schemas["NextEntry"]): string {
  if (kind === "rating") return `../photos?region=${region}`;
  return kind === "tape" ? "../tape" : "../tests";
}
