import { useEffect, useRef } from "react";
import { useTranslation } from "react-i18next";
import { NavLink, useLocation } from "react-router";
import type { Schemas } from "../../../shared/api/client";
import { isStep } from "../model";
import styles from "./StepBar.module.css";

type StepView = Schemas["StepView"];

/** The eight steps of a round along one line, each with how far it has come. A way through, not a cage. */
export function StepBar({ steps, base }: { steps: StepView[]; base: string }) {
  const { t } = useTranslation();
  const line = useRef<HTMLOListElement>(null);
  const { pathname } = useLocation();
  // biome-ignore lint/correctness/useExhaustiveDependencies: another page is another step
  useEffect(() => {
    // On a phone not all of them fit in the line: the one that is open does.
    const here = line.current?.querySelector<HTMLElement>("[aria-current=page]")?.closest("li");
    if (line.current && here) line.current.scrollLeft = here.offsetLeft - line.current.clientWidth / 2;
  }, [pathname]);
  return (
    <nav aria-label={t("clients.columns.round")}>
      <ol ref={line} className={styles.bar}>
        {steps.map(({ step, state, says }) => (
          <li key={step} data-state={state}>
            <NavLink to={`${base}/${step}`}>
              <StateMark state={state} />
              <span className={styles.name}>{isStep(step) ? t(`round.steps.${step}`) : step}</span>
              <span className={styles.says}>
                <span className="sr-only">{t(`round.state.${state}`)}: </span>
                {says}
              </span>
            </NavLink>
          </li>
        ))}
      </ol>
    </nav>
  );
}

/** Empty a ring, enough a disc, a look a bob that hangs. */
function StateMark({ state }: { state: StepView["state"] }) {
  return (
    <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true">
      {state === "empty" && (
        <circle cx="8" cy="8" r="4.500" fill="var(--ground)" stroke="var(--ink)" strokeWidth="1.500" />
      )}
      {state === "enough" && <circle cx="8" cy="8" r="5" fill="var(--ink)" />}
      {state === "look" && <path d="M2 4h12L8 15z" fill="var(--accent)" />}
    </svg>
  );
}
