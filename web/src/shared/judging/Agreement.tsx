import { useTranslation } from "react-i18next";
import type { Schemas } from "../api/client";

/** How far a coach agrees with themselves, and what a rating of theirs is worth for that. */
export function Agreement({ agreement }: { agreement: Schemas["AgreementView"] }) {
  const { t } = useTranslation();
  const sd = agreement.pooled_sd_steps.toFixed(2);
  if (typeof agreement.within_sd_steps !== "number") return <p>{t("judging.noRepeats", { sd })}</p>;
  return (
    <p>
      {t("judging.agreement", { count: agreement.repeats, sd: agreement.within_sd_steps.toFixed(2) })}{" "}
      {typeof agreement.kappa === "number" && t("judging.kappa", { kappa: agreement.kappa.toFixed(2) })}{" "}
      {t("judging.worth", { sd })}
    </p>
  );
}
