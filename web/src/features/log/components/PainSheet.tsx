import { useState } from "react";
import { useTranslation } from "react-i18next";
import { Dialog } from "../../../shared/ui";
import { type Pain, RED_FLAGS, refers, type Side, stops } from "../model";
import styles from "./Phone.module.css";

interface Props {
  open: boolean;
  areas: string[];
  pain?: Pain | null;
  onClose: () => void;
  onTell: (pain: Pain | undefined) => void;
}

const LEVELS = Array.from({ length: 11 }, (_, level) => level);

/** Pain in two taps: where, and how much. Signs for a doctor are asked beside it. */
export function PainSheet({ open, areas, pain, onClose, onTell }: Props) {
  const { t } = useTranslation();
  const [told, setTold] = useState<Partial<Pain>>(pain ?? {});
  const flags = told.red_flags ?? [];
  const whole = told.area !== undefined && told.level !== undefined ? (told as Pain) : undefined;
  const tell = (part: Partial<Pain>) => {
    const next = { ...told, ...part };
    setTold(next);
    if (next.area !== undefined && next.level !== undefined) onTell(next as Pain);
  };
  const flag = (one: (typeof RED_FLAGS)[number]) => {
    const red_flags = flags.includes(one) ? flags.filter((other) => other !== one) : [...flags, one];
    tell({ red_flags, level: told.level ?? 0 });
  };
  return (
    <Dialog open={open} onClose={onClose} title={t("pain.title")}>
      <p className={styles.unit}>{t("pain.where")}</p>
      <div className={styles.choices} role="group" aria-label={t("pain.where")}>
        {areas.map((area) => (
          <button key={area} type="button" aria-pressed={told.area === area} onClick={() => tell({ area })}>
            {area.replace("-", " ")}
          </button>
        ))}
      </div>
      <p className={styles.unit}>{t("pain.much")}</p>
      <div className={styles.choices} role="group" aria-label={t("pain.much")}>
        {LEVELS.map((level) => (
          <button
            key={level}
            type="button"
            aria-pressed={told.level === level}
            onClick={() => tell({ level })}
          >
            {level}
          </button>
        ))}
      </div>
      <p className={styles.unit}>{t("pain.side")}</p>
      <div className={styles.choices} role="group" aria-label={t("pain.side")}>
        {(["left", "right"] as Side[]).map((side) => (
          <button
            key={side}
            type="button"
            aria-pressed={told.side === side}
            onClick={() => tell({ side: told.side === side ? undefined : side })}
          >
            {t(`log.${side}Side`)}
          </button>
        ))}
      </div>
      <p className={styles.unit}>{t("pain.flags")}</p>
      <div className={styles.choices} role="group" aria-label={t("pain.flags")}>
        {RED_FLAGS.map((one) => (
          <button key={one} type="button" aria-pressed={flags.includes(one)} onClick={() => flag(one)}>
            {t(`pain.${one}`)}
          </button>
        ))}
      </div>
      {(stops(whole) || flags.length > 0) && (
        <p className={styles.alarm} role="alert">
          {flags.length > 0 || refers(whole) ? t("pain.refer") : t("pain.stop")}
        </p>
      )}
      {flags.length > 0 && !told.area && <p>{t("pain.whereToo")}</p>}
      <button type="button" className={styles.big} onClick={onClose}>
        {t("pain.done")}
      </button>
      {pain && (
        <button
          type="button"
          className={styles.plain}
          onClick={() => {
            onTell(undefined);
            onClose();
          }}
        >
          {t("pain.none")}
        </button>
      )}
    </Dialog>
  );
}
