import { useState } from "react";
import { useTranslation } from "react-i18next";
import { Dialog } from "../../../shared/ui";
import { type Pain, RED_FLAGS, refers, type Side, stops } from "../model";
import { Choices } from "./Choices";
import styles from "./Phone.module.css";

interface Props {
  open: boolean;
  areas: string[];
  /** The joint this exercise loads: where it hurts most likely. */
  likely?: string;
  pain?: Pain | null;
  onClose: () => void;
  onTell: (pain: Pain | undefined) => void;
}

const SIDES: Side[] = ["left", "right"];
const LEVELS = Array.from({ length: 11 }, (_, level) => level);

/** Pain in two taps: where, and how much. Signs for a doctor are asked beside it. */
export function PainSheet({ open, areas, likely, pain, onClose, onTell }: Props) {
  const { t } = useTranslation();
  const [told, setTold] = useState<Partial<Pain>>(pain ?? { area: areas.find((area) => area === likely) });
  const flags = told.red_flags ?? [];
  // Said, but not where: it could not be kept, and would be gone with the sheet.
  const placeless = told.level !== undefined && told.area === undefined;
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
      <Choices
        label={t("pain.where")}
        options={areas}
        text={(area) => area.replace("-", " ")}
        picked={(area) => told.area === area}
        onPick={(area) => tell({ area })}
      />
      <Choices
        label={t("pain.much")}
        options={LEVELS}
        text={String}
        picked={(level) => told.level === level}
        onPick={(level) => tell({ level })}
      />
      <Choices
        label={t("pain.side")}
        options={SIDES}
        text={(side) => t(`log.${side}Side`)}
        picked={(side) => told.side === side}
        onPick={(side) => tell({ side: told.side === side ? undefined : side })}
      />
      <Choices
        label={t("pain.flags")}
        options={RED_FLAGS}
        text={(one) => t(`pain.${one}`)}
        picked={(one) => flags.includes(one)}
        onPick={flag}
      />
      {stops(told) && (
        <p className={styles.alarm} role="alert">
          {refers(told) ? t("pain.refer") : t("pain.stop")}
        </p>
      )}
      {placeless && (
        <p className="wrong" role="status">
          {t("pain.whereToo")}
        </p>
      )}
      <button type="button" className={styles.big} disabled={placeless} onClick={onClose}>
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
