import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { Rows } from "../../../shared/ui";
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
      <Rows
        caption={t(kind === "standing" ? "judging.standing" : "judging.sides")}
        rows={parts}
        rowKey={({ site }) => site}
        columns={[
          {
            key: "part",
            names: true,
            title: <span className="sr-only">{t("eye.columns.part")}</span>,
            of: ({ site }) => names.site(site),
          },
          {
            key: "line",
            title: (
              <span className={styles.ends}>
                <span style={{ color: kind === "standing" ? "var(--behind)" : "var(--left)" }}>
                  ‹ <span>{t(kind === "standing" ? "eye.smaller" : "eye.leftSeen")}</span>
                </span>
                <span style={{ color: kind === "standing" ? "var(--ahead)" : "var(--right)" }}>
                  <span>{t(kind === "standing" ? "eye.larger" : "eye.rightSeen")}</span> ›
                </span>
              </span>
            ),
            of: ({ skill: part }) => (
              <EyeLine
                kind={kind}
                off={{ mean: part.bias_steps, sd: part.sd_steps ?? undefined }}
                width={narrow ? 104 : 300}
                height={26}
              />
            ),
          },
          { key: "off", title: t("eye.columns.off"), of: ({ skill: part }) => size(part.bias_steps) },
          {
            key: "spread",
            title: t("eye.columns.spread"),
            of: ({ skill: part }) =>
              typeof part.sd_steps === "number" ? `±${sized(kind, part.sd_steps * step)}` : "–",
          },
          {
            key: "answers",
            title: t("eye.columns.answers"),
            numbers: true,
            of: ({ skill: part }) => part.answers,
          },
        ]}
      />
      <p className={styles.sentence}>
        {skill.of > 0 && t("eye.seen", { right: skill.right, of: skill.of, step: sized(kind, step) })}{" "}
        {typeof skill.sure_from_steps === "number"
          ? t("eye.sure", { by: sized(kind, skill.sure_from_steps * step) })
          : t("eye.notSure")}
      </p>
    </section>
  );
}
