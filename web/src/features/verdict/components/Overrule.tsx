import { Button, Input } from "antd";
import { type FormEvent, useId, useState } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { StandingMark } from "../../../shared/ui";
import { type RegionEntry, standing } from "../model";
import styles from "./Overrule.module.css";

type Standing = Schemas["Standing"];

const VERDICTS: Standing[] = ["behind", "level", "ahead", "unclear"];

interface Props {
  entry: RegionEntry;
  onOverrule: (verdict: Standing, reason: string) => void;
  onTakeBack: () => void;
}

/** The coach's own verdict on a region, with the reason that stands beside it from then on. */
export function Overrule({ entry, onOverrule, onTakeBack }: Props) {
  const { t } = useTranslation();
  const [open, setOpen] = useState(false);
  const [verdict, setVerdict] = useState<Standing>();
  const [reason, setReason] = useState("");
  const field = useId();
  if (entry.overruled)
    return (
      <Button size="small" onClick={onTakeBack}>
        {t("verdict.takeBack")}
      </Button>
    );
  if (!open)
    return (
      <Button size="small" type="text" onClick={() => setOpen(true)}>
        {t("verdict.overrule")}
      </Button>
    );
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (verdict && reason.trim()) onOverrule(verdict, reason.trim());
  };
  return (
    <form className={styles.form} onSubmit={submit}>
      <fieldset>
        <legend>{t("verdict.overruleAs")}</legend>
        {VERDICTS.filter((one) => one !== standing(entry)).map((one) => (
          <button key={one} type="button" aria-pressed={one === verdict} onClick={() => setVerdict(one)}>
            <StandingMark standing={one} />
          </button>
        ))}
      </fieldset>
      <label htmlFor={field}>{t("verdict.overruleWhy")}</label>
      <Input
        id={field}
        value={reason}
        maxLength={300}
        placeholder={t("verdict.overruleExample")}
        onChange={({ target }) => setReason(target.value)}
      />
      <div className={styles.buttons}>
        <Button size="small" type="primary" htmlType="submit" disabled={!verdict || !reason.trim()}>
          {t("verdict.overruleSave")}
        </Button>
        <Button size="small" onClick={() => setOpen(false)}>
          {t("verdict.overruleCancel")}
        </Button>
      </div>
    </form>
  );
}
