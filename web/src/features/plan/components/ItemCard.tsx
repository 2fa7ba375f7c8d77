import { useTranslation } from "react-i18next";
import { useAtlas, useNames } from "../../../shared/api/atlas";
import { SideMark } from "../../../shared/ui";
import { firstSide, type Item } from "../model";
import styles from "./ItemCard.module.css";

interface Props {
  item: Item;
  open: boolean;
  onToggle: () => void;
}

/** One exercise: what for, sets and repetitions, which side first; opened, its reasons and cues. */
export function ItemCard({ item, open, onToggle }: Props) {
  const { t } = useTranslation();
  const names = useNames();
  const atlas = useAtlas();
  const side = firstSide(item);
  const exercise = atlas.data?.exercises.find(({ id }) => id === item.exercise);
  return (
    <li className={styles.item}>
      <button type="button" onClick={onToggle} aria-expanded={open} className={styles.face}>
        <span className={styles.region}>{names.region(item.region)}</span>
        <span className={styles.name}>{item.name}</span>
        <span className={styles.work}>
          {workOf(item, t)}
          {side && (
            <span className={styles.sides}>
              <SideMark side={side} label={t("plan.first", { side: t(`plan.sideNames.${side}`) })} />
              {item.extra_sets_weaker > 0 && ` ${t("plan.extra", { side: side === "left" ? "L" : "R" })}`}
            </span>
          )}
        </span>
      </button>
      {open && (
        <div className={styles.more}>
          <p className="quiet">
            {t("plan.reserve", { count: item.reserve })}, {t("plan.rest", { seconds: item.rest_s })}
          </p>
          {item.warm_up && <p>{item.warm_up}</p>}
          <h3>{t("plan.why")}</h3>
          <ul>
            {item.why.map((reason) => (
              <li key={reason}>{reason}</li>
            ))}
          </ul>
          {[exercise?.set_up, ...(exercise?.cues ?? []), ...(item.cues ?? [])].map((cue) => (
            <p key={cue} className="quiet">
              {cue}
            </p>
          ))}
        </div>
      )}
    </li>
  );
}

export function workOf(item: Item, t: ReturnType<typeof useTranslation>["t"]): string {
  const [low, high] = item.reps ?? item.seconds ?? [0, 0];
  const work = item.reps ? t("plan.reps", { low, high }) : t("plan.seconds", { low, high });
  return t("plan.sets", { sets: item.sets, work });
}
