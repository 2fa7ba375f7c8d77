import { useTranslation } from "react-i18next";
import { useParams } from "react-router";
import { isStep } from "../model";

/** A step that comes later: what it will hold, without pretending. */
export function LaterPage() {
  const { t } = useTranslation();
  const { step } = useParams();
  if (!isStep(step)) return <p>{t("app.notFound")}</p>;
  const holds = step === "log" || step === "review" ? t(`later.${step}`) : "";
  return (
    <section style={{ maxWidth: 620, paddingTop: 12 }}>
      <h2 style={{ fontSize: 20, marginBottom: 10 }}>
        {t("later.title", { step: t(`round.steps.${step}`) })}
      </h2>
      <p>{holds}</p>
      <p className="quiet">{t("later.meanwhile")}</p>
    </section>
  );
}
