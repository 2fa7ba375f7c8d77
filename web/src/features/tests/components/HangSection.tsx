import { Button } from "antd";
import { useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import { Wrong } from "../../../shared/ui";
import { shortcut } from "../../../shared/ui/acts";
import { useKeys } from "../../../shared/ui/keys";
import { clock } from "../model";
import styles from "./Tests.module.css";
import type { SectionProps } from "./TestsSheet";

/** The hang from a bar, with a clock: started and stopped by one button or the space bar. */
export function HangSection({ sheet, typing, problems, onChange, flush }: SectionProps) {
  const { t } = useTranslation();
  const [since, setSince] = useState<number>();
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (since === undefined) return;
    const timer = setInterval(() => setNow(performance.now()), 100);
    return () => clearInterval(timer);
  }, [since]);
  const turn = () => {
    if (since === undefined) {
      setNow(performance.now());
      setSince(performance.now());
      return;
    }
    // Whole seconds: a thumb on a clock is no better than that.
    onChange({ hang: String(Math.max(1, Math.round((performance.now() - since) / 1000))) });
    setSince(undefined);
  };
  useKeys({ hang: turn });
  const { hang } = sheet;
  return (
    <section aria-label={t("tests.hang")}>
      <h2 className={styles.heading}>{t("tests.hang")}</h2>
      <div className={styles.hang}>
        <output className={styles.clock} aria-live="off">
          {clock(since === undefined ? Number(typing.hang) || 0 : (now - since) / 1000)}
        </output>
        <Button
          type={since === undefined ? "default" : "primary"}
          onClick={turn}
          aria-keyshortcuts={shortcut("hang")}
        >
          {t(since === undefined ? "tests.start" : "tests.stop")}
        </Button>
        <label>
          <input
            className="typed"
            data-field="hang"
            inputMode="decimal"
            autoComplete="off"
            aria-label={t("tests.hangSeconds")}
            value={typing.hang}
            onChange={({ target }) => onChange({ hang: target.value }, "hang")}
            onBlur={flush}
          />{" "}
          s
        </label>
        <span className="quiet">
          {hang
            ? t(hang.short ? "tests.hangShort" : "tests.hangLong", { average: hang.good_average_s })
            : t("tests.hangHint")}
        </span>
      </div>
      {problems.hang?.map((says) => (
        <Wrong key={says}>{says}</Wrong>
      ))}
    </section>
  );
}
