import { useTranslation } from "react-i18next";
import type { Schemas } from "../api/client";
import { chance, hundredths } from "../format";

/** How far a coach agrees with themselves, what a rating of theirs weighs for that, and why. */
export function Agreement({ agreement }: { agreement: Schemas["AgreementView"] }) {
  const { t } = useTranslation();
  const { repeats, against_truth, truths_needed, within_sd_steps, kappa, pooled_sd_steps, narrows } =
    agreement;
  const girths = agreement.beside_girths;
  return (
    <p>
      {typeof within_sd_steps === "number" &&
        `${t("judging.agreement", { count: repeats, sd: hundredths(within_sd_steps) })} `}
      {typeof kappa === "number" && `${t("judging.kappa", { kappa: hundredths(kappa) })} `}
      {t("judging.worth", { sd: hundredths(pooled_sd_steps), share: chance(narrows) })}{" "}
      {against_truth >= truths_needed
        ? t("judging.learned", { count: against_truth })
        : t("judging.usual", { count: against_truth, needed: truths_needed })}
      {girths > 0 && ` ${t("judging.girths", { count: girths })}`}
    </p>
  );
}
