import type { ReactNode } from "react";
import { useTranslation } from "react-i18next";
import styles from "./Doorway.module.css";

/** Marks that hang about a line: the idea of the application, drawn once at its door. */
const HANGING = [
  { y: 90, x: -26, w: 34, tone: "behind" },
  { y: 150, x: 6, w: 22, tone: "level" },
  { y: 210, x: 34, w: 30, tone: "ahead" },
  { y: 270, x: -8, w: 46, tone: "level" },
  { y: 330, x: -44, w: 26, tone: "behind" },
  { y: 390, x: 12, w: 18, tone: "level" },
  { y: 450, x: 20, w: 40, tone: "ahead" },
];

/** The frame of the forms before anyone is signed in. */
export function Doorway({ lead, children }: { lead: string; children: ReactNode }) {
  const { t } = useTranslation();
  return (
    <main className={styles.doorway}>
      <svg className={styles.plumb} viewBox="-110 0 220 640" aria-hidden="true">
        <path d="M0 0V560" stroke="var(--ink)" strokeWidth="1.500" />
        <path d="M-14 560h28L0 604z" fill="var(--accent)" />
        {HANGING.map(({ y, x, w, tone }) => (
          <g key={y} stroke={`var(--${tone})`} fill={`var(--${tone})`}>
            <path d={`M${x - w} ${y}H${x + w}`} strokeWidth="2" />
            <circle cx={x} cy={y} r="6.500" />
          </g>
        ))}
      </svg>
      <section className={styles.form}>
        <h1>{t("app.name")}</h1>
        <p className="quiet">{lead}</p>
        {children}
      </section>
    </main>
  );
}
