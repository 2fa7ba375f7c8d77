import { useTranslation } from "react-i18next";
import { percent, sd, signed } from "../../../shared/format";
import type { RegionEntry } from "../model";
import styles from "./Detail.module.css";

/** Why a region lags or leans, and where its evidence contradicts itself. Nothing where there is nothing to say. */
export function Why({ entry }: { entry: RegionEntry }) {
  const { t } = useTranslation();
  const { causes, conflict, sides_disagree: sides } = entry;
  if (causes.length === 0 && conflict.length === 0 && !sides) return null;
  return (
    <>
      <h2>{t("verdict.why")}</h2>
      <ul className={styles.evidence}>
        {causes.map(({ cause, name, seen, do: advice }) => (
          <li key={cause}>
            <strong>{name}.</strong> {seen} <em>{advice}</em>
          </li>
        ))}
        {conflict.map(({ about, kinds: [one, other] }) => {
          const unit = about === "size" ? "SD" : "%";
          const said = (estimate = 0) => `${signed(estimate, about === "size" ? sd : percent)} ${unit}`;
          return (
            <li key={about}>
              {t("verdict.conflict", {
                one: one?.kind,
                oneSays: said(one?.estimate),
                other: other?.kind,
                otherSays: said(other?.estimate),
              })}
            </li>
          );
        })}
        {sides && <li>{t("verdict.sidesDisagree", sides)}</li>}
      </ul>
    </>
  );
}
