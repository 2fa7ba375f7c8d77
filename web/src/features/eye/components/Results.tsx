import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import { Rows } from "../../../shared/ui";
import { judged, type Sitting } from "../model";
import styles from "./Eye.module.css";
import { EyeLine } from "./EyeLine";
import { Truth } from "./ToldPanel";
import { useWord } from "./useWord";

/** A sitting that is over: every figure along the plumb line, what is true of it beside what was said. */
export function Results({ sitting }: { sitting: Sitting }) {
  const { t } = useTranslation();
  const names = useNames();
  const word = useWord();
  const { right = 0, of = 0 } = sitting.skill ?? {};
  const all = judged(sitting);
  return (
    <>
      <p className={styles.sentence}>{of > 0 ? t("eye.rightOf", { right, of }) : t("eye.nothingToSee")}</p>
      {(["left-right", "standing"] as const).map((kind) => (
        <Rows
          key={kind}
          caption={t(kind === "standing" ? "judging.standing" : "judging.sides")}
          rows={all.filter(({ told }) => told.kind === kind)}
          rowKey={({ told }) => `${told.place}`}
          columns={[
            { key: "part", names: true, of: ({ told }) => names.site(told.site) },
            {
              key: "line",
              of: ({ told, answers }) => (
                <EyeLine
                  kind={kind}
                  truth={told.truth_steps ?? undefined}
                  answers={answers}
                  width={300}
                  height={34}
                />
              ),
            },
            {
              key: "told",
              of: ({ told, answers }) => (
                <>
                  {typeof told.truth === "number" && <Truth kind={kind} truth={told.truth} />}{" "}
                  <span className="quiet">
                    {answers
                      .map(({ value }) => (value === undefined ? t("judging.cannotTell") : word(kind, value)))
                      .join(", ")}
                  </span>
                </>
              ),
            },
          ]}
        />
      ))}
      <p className="quiet">{t("eye.key")}</p>
    </>
  );
}
