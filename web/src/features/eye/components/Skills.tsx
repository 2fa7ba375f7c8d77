import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { useNarrow } from "../../../shared/ui/useMedia";
import { signed, sized } from "../model";
import styles from "./Eye.module.css";
import { EyeLine } from "./EyeLine";

type KindSkill = Schemas["KindSkill"];

/** How far a coach's eye is off for each part, along the plumb line: on it, everything is seen as it is. */
export function Skills({ known }: { known: KindSkill }) {
  const { t } = useTranslation();
  const names = useNames();
  const narrow = useNarrow();
  const { kind, step, skill, parts } = known;
  if (!skill) return null;
  const size = (steps: number) => signed(kind, steps * step);
  return (
    <section>
      <table className={styles.rows}>
        <caption>{t(kind === "standing" ? "judging.standing" : "judging.sides")}</caption>
        <thead>
          <tr>
            <th>
              <span className="sr-only">{t("eye.columns.part")}</span>
            </th>
            <th>
              <span className={styles.ends}>
                <span style={{ color: kind === "standing" ? "var(--behind)" : "var(--left)" }}>
                  ‹ <span>{t(kind === "standing" ? "eye.smaller" : "eye.leftSeen")}</span>
                </span>
                <span style={{ color: kind === "standing" ? "var(--ahead)" : "var(--right)" }}>
                  <span>{t(kind === "standing" ? "eye.larger" : "eye.rightSeen")}</span> ›
                </span>
              </span>
            </th>
            <th>{t("eye.columns.off")}</th>
            <th>{t("eye.columns.spread")}</th>
            <th>{t("eye.columns.answers")}</th>
          </tr>
        </thead>
        <tbody>
          {parts.map(({ site, skill: part }) => (
            <tr key={site}>
              <th scope="row">{names.site(site)}</th>
              <td>
                <EyeLine
                  kind={kind}
                  off={{ mean: part.bias_steps, sd: part.sd_steps ?? undefined }}
                  width={narrow ? 104 : 300}
                  height={26}
                />
              </td>
              <td>{size(part.bias_steps)}</td>
              <td>{typeof part.sd_steps === "number" ? `±${sized(kind, part.sd_steps * step)}` : "–"}</td>
              <td>{part.answers}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className={styles.sentence}>
        {skill.of > 0 && t("eye.seen", { right: skill.right, of: skill.of, step: sized(kind, step) })}{" "}
        {typeof skill.sure_from_steps === "number"
          ? t("eye.sure", { by: sized(kind, skill.sure_from_steps * step) })
          : t("eye.notSure")}
      </p>
    </section>
  );
}
