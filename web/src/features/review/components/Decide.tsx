import { Radio } from "antd";
import { useTranslation } from "react-i18next";
import { DECISIONS, type Decision, type RegionReview } from "../model";
import styles from "./Review.module.css";

interface Props {
  review: RegionReview;
  name: string;
  decision?: Decision;
  onDecide: (decision: Decision) => void;
}

/** The decision for a region: the proposed one is marked, any can be taken. */
export function Decide({ review, name, decision, onDecide }: Props) {
  const { t } = useTranslation();
  const choices: Decision[] = review.chosen ? DECISIONS : ["keep", "grow"];
  return (
    <fieldset className={styles.decide}>
      <legend className="sr-only">{t("review.decisionFor", { name })}</legend>
      <Radio.Group
        name={`decision ${review.region}`}
        value={decision ?? null}
        onChange={({ target }) => onDecide(target.value)}
      >
        {choices.map((one) => (
          <Radio key={one} value={one}>
            {t(`review.decision.${one}`)}
            {review.proposed === one && <span className={styles.proposed}>{t("review.proposed")}</span>}
          </Radio>
        ))}
      </Radio.Group>
    </fieldset>
  );
}
