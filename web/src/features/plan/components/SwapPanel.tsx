import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { MovementPicture } from "../../../shared/figure";
import { sets, signed } from "../../../shared/format";
import { ErrorNote } from "../../../shared/ui";
import { useSwaps } from "../api";
import { cardAt, type Spot, type Week } from "../model";
import { SidePanel } from "./SidePanel";
import styles from "./SwapPanel.module.css";

interface Props {
  roundId: string;
  week: Week;
  spot: Spot;
  onTake: (exercise: string) => void;
  onClose: () => void;
}

/** Regions of an alternative that are named; the rest is small change. */
const CHANGES_SHOWN = 4;

/** What could stand in a card's place, best first, each with what it would change. */
export function SwapPanel({ roundId, week, spot, onTake, onClose }: Props) {
  const { t } = useTranslation();
  const names = useNames();
  const swaps = useSwaps(roundId, week, spot);
  const card = cardAt(week, spot);
  if (!card) return null;
  const title = t("plan.swapTitle", { name: names.exercise(card.exercise) });
  return (
    <SidePanel label={title} title={title} onClose={onClose}>
      <div className={styles.panel}>
        {swaps.error && <ErrorNote error={swaps.error} onRetry={() => swaps.refetch()} />}
        {swaps.data && (
          <>
            <p className="quiet">
              {swaps.data.alternatives.length > 0
                ? t("plan.swapFor", { region: names.region(swaps.data.region) })
                : t("plan.noSwap", { region: names.region(swaps.data.region) })}
            </p>
            <ol>
              {swaps.data.alternatives.map((other) => (
                <Alternative key={other.exercise} other={other} onTake={() => onTake(other.exercise)} />
              ))}
            </ol>
            {swaps.data.refused.length > 0 && (
              <details>
                <summary>{t("plan.notFor", { count: swaps.data.refused.length })}</summary>
                <ul>
                  {swaps.data.refused.map(({ exercise, name, because }) => (
                    <li key={exercise}>
                      {name} {because}.
                    </li>
                  ))}
                </ul>
              </details>
            )}
          </>
        )}
      </div>
    </SidePanel>
  );
}

function Alternative({ other, onTake }: { other: Schemas["Alternative"]; onTake: () => void }) {
  const { t } = useTranslation();
  const names = useNames();
  const stretch = other.stretched === other.was_stretched ? undefined : other.stretched;
  const kit = other.kit.map((item) => names.equipment(item).toLowerCase()).join(", ");
  const minutes = Math.round(other.minutes);
  return (
    <li className={styles.other}>
      <MovementPicture exercise={other.exercise} />
      <button type="button" className={styles.take} onClick={onTake}>
        {other.name}
      </button>
      {other.breaks.map((says) => (
        <p key={says} className={styles.breaks}>
          {says}
        </p>
      ))}
      <p className={styles.changes}>
        {other.ledger.slice(0, CHANGES_SHOWN).map(({ region, sets: by }) => (
          <span key={region} data-more={by > 0 || undefined}>
            {signed(by, sets)} {names.region(region)}
          </span>
        ))}
        {minutes !== 0 && <span>{t("plan.minutes", { minutes: signed(minutes, sets) })}</span>}
        {stretch !== undefined && <span>{t(stretch ? "plan.stretchGained" : "plan.stretchLost")}</span>}
      </p>
      <p className="quiet">{[...other.merits, kit].filter(Boolean).join("; ")}</p>
    </li>
  );
}
