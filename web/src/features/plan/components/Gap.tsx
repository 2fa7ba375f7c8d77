import { useTranslation } from "react-i18next";
import { tenths } from "../../../shared/format";
import type { Proving } from "../api";
import type { Plan } from "../model";
import styles from "./Gap.module.css";

interface Props {
  plan: Plan;
  proving: Proving;
}

/** A few seconds settle most weeks; longer is asked for. */
const LONGER_S = 60;

/** How far from the best possible week this one may be, as a bar that fills while the proof goes on. */
export function Gap({ plan, proving }: Props) {
  const { t } = useTranslation();
  const { proof, running, start, stop } = proving;
  // In another order the same week is as good.
  if ((plan.broken ?? []).some((broken) => !broken.order_only))
    return <span className="quiet">{t("plan.gapBroken")}</span>;
  const gap = proof?.gap ?? plan.gap ?? undefined;
  const best = gap !== undefined && gap < 0.0005;
  return (
    <span className={styles.gap}>
      <span role="status">
        {gap === undefined
          ? t(running ? "plan.proving" : "plan.unproven")
          : best
            ? t("plan.best")
            : t("plan.within", { percent: percentUp(gap) })}
      </span>
      {gap !== undefined && (
        <svg className={styles.bar} viewBox="0 0 100 6" preserveAspectRatio="none" aria-hidden="true">
          <rect width="100" height="6" fill="var(--hairline)" />
          <rect width={Math.max(0, 100 * (1 - gap))} height="6" fill="var(--ahead)" />
        </svg>
      )}
      {running ? (
        <button type="button" className="text-button" onClick={stop}>
          {t("plan.stopProof", { seconds: Math.round(proof?.seconds ?? 0) })}
        </button>
      ) : (
        !best &&
        !proof?.finished && (
          <button type="button" className="text-button" onClick={() => start(LONGER_S)}>
            {t("plan.proveLonger")}
          </button>
        )
      )}
    </span>
  );
}

/** Rounded up, so that what is said is proven: one digit below ten. */
export function percentUp(gap: number): string {
  const percent = gap * 100;
  return percent < 10 ? tenths(Math.ceil(percent * 10) / 10) : String(Math.ceil(percent));
}
