import { Button } from "antd";
import type { ReactNode } from "react";
import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import { type Choices, priorities } from "../model";
import styles from "./ChoiceTray.module.css";

interface Props {
  choices: Choices;
  onRelease: (region: string) => void;
  onPick: (region: string) => void;
  onReleaseArea: (area: string) => void;
  onPickArea: (area: string) => void;
  onPlan: () => void;
  onShare: () => void;
  /** Whether what was chosen is kept, and the way back. */
  children?: ReactNode;
}

/** Up to three regions and parts to bring up, what is held back, and the way to the plan. */
export function ChoiceTray(props: Props) {
  const { choices, onRelease, onPick, onReleaseArea, onPickArea, onPlan, onShare, children } = props;
  const { t } = useTranslation();
  const names = useNames();
  const chosen = choices.bring_up;
  const { areas } = choices;
  const count = priorities(choices);
  const held = choices.hold_back;
  return (
    <div className={styles.tray}>
      <strong>{t("verdict.chosen")}</strong>
      <span className="quiet">{t("verdict.room", { count })}</span>
      {count === 0 && <span className="quiet">{t("verdict.none")}</span>}
      {chosen.map((region) => (
        <span key={region} className={styles.chosen}>
          <button type="button" onClick={() => onPick(region)}>
            {names.region(region)}
          </button>
          <button
            type="button"
            aria-label={`${t("verdict.release")}: ${names.region(region)}`}
            onClick={() => onRelease(region)}
          >
            ×
          </button>
        </span>
      ))}
      {areas.map((area) => (
        <span key={area} className={styles.chosen}>
          <button type="button" onClick={() => onPickArea(area)}>
            {t("verdict.allOf", { area: names.part(area) })}
          </button>
          <button
            type="button"
            aria-label={`${t("verdict.release")}: ${names.part(area)}`}
            onClick={() => onReleaseArea(area)}
          >
            ×
          </button>
        </span>
      ))}
      {held.length > 0 && (
        <span className="quiet">
          {t("verdict.held")}: {held.map(names.region).join(", ")}
        </span>
      )}
      <span className={styles.tools}>{children}</span>
      <Button type="text" onClick={onShare}>
        {choices.share.length > 0
          ? t("share.sees", { what: choices.share.map((what) => t(`share.short.${what}`)).join(", ") })
          : t("share.nothing")}
      </Button>
      <Button type="primary" disabled={count === 0} onClick={onPlan}>
        {t("verdict.plan")}
      </Button>
    </div>
  );
}
