import { useEffect, useRef } from "react";
import { useTranslation } from "react-i18next";
import type { Atlas, Names } from "../../../shared/api/atlas";
import { MovementPicture } from "../../../shared/figure";
import { type Hardest, type Listed, targetsOf } from "../model";
import styles from "./ExerciseRow.module.css";
import { MovementBench } from "./MovementBench";

interface Props {
  exercise: Listed;
  atlas: Atlas;
  names: Names;
  region?: string;
  own: boolean;
  open: boolean;
  onToggle: () => void;
  onEdit?: () => void;
}

/** One exercise: what it serves, where the load bites along the range, how far it stretches, what it needs; opened, how it is done. */
export function ExerciseRow({ exercise, atlas, names, region, own, open, onToggle, onEdit }: Props) {
  const { t } = useTranslation();
  const row = useRef<HTMLLIElement>(null);
  const led = useRef(open);
  // A link may lead to one far down.
  useEffect(() => {
    if (led.current) row.current?.scrollIntoView({ block: "start" });
  }, []);
  const kit = exercise.equipment.map((item) => names.equipment(item).toLowerCase()).join(", ");
  const regions = targetsOf(exercise);
  const main = regions.filter(([, fraction]) => fraction >= 1).map(([id]) => names.region(id));
  const half = regions.filter(([, fraction]) => fraction < 1).map(([id]) => names.region(id));
  const lesser = region !== undefined && (exercise.targets[region] ?? 0) < 1;
  return (
    <li ref={row} className={styles.row} data-lesser={lesser || undefined}>
      <button type="button" className={styles.face} aria-expanded={open} onClick={onToggle}>
        <span className={styles.picture}>{!own && <MovementPicture exercise={exercise.id} />}</span>
        <span className={styles.name}>
          {exercise.name}
          {own && <em> {t("library.own")}</em>}
        </span>
        <Range hardest={exercise.hardest} stretch={exercise.stretch} />
        <span className={styles.main}>{main.join(", ") || half.join(", ")}</span>
        <span className={styles.kit}>{kit}</span>
      </button>
      {exercise.advised_against && <p className={styles.against}>{exercise.advised_against}</p>}
      {open && <MovementBench exercise={exercise} names={names} region={region} />}
      {open && (
        <div className={styles.more}>
          <p>{exercise.set_up}</p>
          <ul>
            {exercise.cues.map((cue) => (
              <li key={cue}>{cue}</li>
            ))}
          </ul>
          {exercise.faults.map((fault) => (
            <p key={fault.fault}>
              {t("library.fault", {
                fault: fault.fault,
                over: (
                  atlas.regions.find(({ id }) => id === fault.takes_over)?.name ??
                  atlas.takeovers[fault.takes_over] ??
                  fault.takes_over
                ).toLowerCase(),
              })}
            </p>
          ))}
          {half.length > 0 && <p>{t("library.alsoWorks", { regions: half.join(", ") })}</p>}
          {exercise.cautions.map((caution) => (
            <p key={caution}>{caution}</p>
          ))}
          <p className="quiet">
            {[
              t(`library.stability.${exercise.stability as 0 | 1 | 2}`),
              t(`library.sidesUse.${exercise.sides}`),
              exercise.reps
                ? t("library.reps", { low: exercise.reps[0], high: exercise.reps[1] })
                : t("library.seconds", { low: exercise.seconds?.[0], high: exercise.seconds?.[1] }),
              exercise.loads_joint.length > 0 &&
                t("library.loads", { joints: exercise.loads_joint.join(", ") }),
            ]
              .filter(Boolean)
              .join("; ")}
          </p>
          {onEdit && (
            <button type="button" className="text-button" onClick={onEdit}>
              {t("library.edit")}
            </button>
          )}
        </div>
      )}
    </li>
  );
}

const PLACES: Record<Hardest, [number, number]> = { L: [2, 22], M: [22, 42], S: [42, 62], E: [2, 62] };

/** The range from stretched (left) to short (right): thick where the load bites; the pull at the left end is the stretch. */
function Range({ hardest, stretch }: { hardest: Hardest[]; stretch: number }) {
  const { t } = useTranslation();
  const says = t("library.range", {
    hardest: hardest.map((at) => t(`library.hardestAt.${at}`)).join(", "),
    stretch,
  });
  return (
    <svg className={styles.range} width="76" height="16" role="img" aria-label={says}>
      <title>{says}</title>
      <path d="M12 8H74" stroke="var(--hairline)" strokeWidth="2" />
      {hardest.map((at) => {
        const [from, to] = PLACES[at];
        return <path key={at} d={`M${from + 11} 8H${to + 11}`} stroke="var(--ink)" strokeWidth="6" />;
      })}
      {Array.from({ length: stretch }, (_, step) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: strokes have no identity but their place
        <path key={step} d={`M${9 - 4 * step} 3V13`} stroke="var(--accent)" strokeWidth="1.6" />
      ))}
    </svg>
  );
}
