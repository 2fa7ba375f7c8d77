import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { MovementPicture } from "../../../shared/figure";
import { Section } from "../../../shared/ui";
import styles from "./Phone.module.css";
import own from "./WarmUp.module.css";

interface Props {
  warmUp: Schemas["WarmUpEntry"];
  /** How many times each is done: more on a bad day. */
  times: number;
}

/** What comes before the work: moves for today's joints, then light sets for a chosen region. */
export function WarmUp({ warmUp, times }: Props) {
  const { t } = useTranslation();
  const { activation } = warmUp;
  return (
    <>
      <Moves title={t("warmUp.before")} moves={warmUp.moves ?? []} times={times} />
      {activation && (
        <p>{t("warmUp.light", { sets: activation.sets, reps: activation.reps, name: activation.name })}</p>
      )}
    </>
  );
}

interface MovesProps {
  title: string;
  moves: Schemas["MoveEntry"][];
  times: number;
}

export function Moves({ title, moves, times }: MovesProps) {
  const { t } = useTranslation();
  if (moves.length === 0) return null;
  return (
    <Section
      title={
        <>
          {title}
          {times > 1 && ` · ${t("warmUp.times", { times })}`}
        </>
      }
      level={3}
      headClass={styles.unit}
    >
      <ul className={own.moves}>
        {moves.map((move) => (
          <li key={move.id}>
            <MovementPicture exercise={move.picture} name={move.name} />
            <div>
              <strong>
                {move.name}{" "}
                {move.reps != null ? `× ${move.reps * times}` : `${(move.seconds ?? 0) * times} s`}
              </strong>
              <p>{move.how}</p>
              <p className="quiet">{move.why}</p>
            </div>
          </li>
        ))}
      </ul>
    </Section>
  );
}
