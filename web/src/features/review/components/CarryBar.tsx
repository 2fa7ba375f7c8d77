import { Button } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { useNames } from "../../../shared/api/atlas";
import { day } from "../../../shared/format";
import { Dialog, ErrorNote } from "../../../shared/ui";
import { useSaveReview } from "../api";
import { type Choices, type Decision, hasChoices, type Review } from "../model";
import styles from "./Review.module.css";

interface Props {
  roundId: string;
  review: Review;
  decisions: Record<string, Decision>;
  also: string[];
  /** More go on than may be brought up at once. */
  tooMany: number | undefined;
  /** What the next round had before it was changed from here. */
  before?: Choices;
  onCarried: (before: Choices | undefined) => void;
}

/** Keeps the decisions and takes them into the next round; what was chosen there is asked about, and one step back gives it again. */
export function CarryBar({ roundId, review, decisions, also, tooMany, before, onCarried }: Props) {
  const { t } = useTranslation();
  const names = useNames();
  const saving = useSaveReview(roundId, review.next?.id ?? "");
  const [asking, setAsking] = useState(false);
  const { next, next_choices: there } = review;
  if (!next) return null;
  const date = day(next.date);
  const save = async (carry?: "beside" | "instead") => {
    setAsking(false);
    const saved = await saving.save({ revision: review.revision, decisions, also, carry });
    if (saved && carry) onCarried(there ?? undefined);
  };
  const undo = async (choices: Choices) => {
    if (await saving.restore({ revision: review.next_choices_revision, choices })) onCarried(undefined);
  };
  const named = (regions: string[]) => regions.map(names.region).join(", ");
  return (
    <>
      {saving.error && <ErrorNote error={saving.error} />}
      <div className={styles.foot}>
        <Button
          type="primary"
          loading={saving.pending}
          disabled={tooMany !== undefined}
          onClick={() => (hasChoices(there) ? setAsking(true) : save("instead"))}
        >
          {t("review.carry", { date })}
        </Button>
        {review.carried && (
          <span>
            {t("review.carried")}{" "}
            <Link to={`/clients/${review.client_id}/rounds/${next.id}/plan`}>{t("review.toPlan")}</Link>
          </span>
        )}
        {before && (
          <button type="button" className="text-button" onClick={() => undo(before)}>
            {t("review.undoCarry")}
          </button>
        )}
        {tooMany !== undefined && <span>{t("review.tooMany", { most: tooMany })}</span>}
      </div>
      <Dialog open={asking} title={t("review.askTitle", { date })} onClose={() => setAsking(false)}>
        {(there?.bring_up ?? []).length > 0 && (
          <p>{t("review.thereUp", { names: named(there?.bring_up ?? []) })}</p>
        )}
        {(there?.areas ?? []).length > 0 && (
          <p>{t("review.thereParts", { names: (there?.areas ?? []).map(names.part).join(", ") })}</p>
        )}
        {(there?.hold_back ?? []).length > 0 && (
          <p>{t("review.thereBack", { names: named(there?.hold_back ?? []) })}</p>
        )}
        <div className={styles.ask}>
          <Button type="primary" onClick={() => save("beside")}>
            {t("review.beside")}
          </Button>
          <Button onClick={() => save("instead")}>{t("review.instead")}</Button>
          <Button onClick={() => save()}>{t("review.onlyDecide")}</Button>
        </div>
      </Dialog>
    </>
  );
}
