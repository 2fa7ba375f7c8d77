import { Button, Select, Slider } from "antd";
import { useEffect, useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import { lockedCount, type Week } from "../model";
import styles from "./PlanTools.module.css";

interface Props {
  week: Week;
  solving: boolean;
  onSolve: (change: { days?: number; minutes?: number; another?: boolean }) => void;
  onWeeks: (weeks: number) => void;
}

const MINUTES = { least: 20, most: 120, step: 5 };
const BLOCK = [4, 5, 6, 7, 8];

/** Days and minutes that solve the week anew, around whatever is locked; and how many weeks it goes on. */
export function PlanTools({ week, solving, onSolve, onWeeks }: Props) {
  const { t } = useTranslation();
  const locked = lockedCount(week);
  return (
    <div className={styles.tools}>
      <Slide
        label={t("plan.days")}
        value={week.sessions.length}
        least={1}
        most={7}
        step={1}
        onDone={(days) => onSolve({ days })}
      />
      <Slide
        label={t("plan.minutesEach")}
        value={week.minutes}
        least={MINUTES.least}
        most={Math.max(MINUTES.most, week.minutes)}
        step={MINUTES.step}
        onDone={(minutes) => onSolve({ minutes })}
      />
      <span className={styles.field}>
        {t("plan.block")}
        <Select
          size="small"
          aria-label={t("plan.blockWeeks")}
          value={week.weeks}
          onChange={onWeeks}
          options={BLOCK.map((weeks) => ({ value: weeks, label: t("plan.weeks", { count: weeks }) }))}
        />
      </span>
      <Button loading={solving} onClick={() => onSolve({ another: true })}>
        {locked > 0 ? t("plan.solveAround", { count: locked }) : t("plan.solve")}
      </Button>
    </div>
  );
}

interface SlideProps {
  label: string;
  value: number;
  least: number;
  most: number;
  step: number;
  onDone: (value: number) => void;
}

/** How long a slider rests before its number is asked for: keys change it step by step. */
const REST_MS = 450;

/** A slider that shows its number while it is moved and asks for it once it rests. */
function Slide({ label, value, least, most, step, onDone }: SlideProps) {
  const [shown, setShown] = useState(value);
  const resting = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => setShown(value), [value]);
  useEffect(() => () => clearTimeout(resting.current), []);
  const rested = (chosen: number) => {
    clearTimeout(resting.current);
    if (chosen !== value) resting.current = setTimeout(() => onDone(chosen), REST_MS);
  };
  return (
    <span className={styles.field}>
      {label} <strong>{shown}</strong>
      <Slider
        className={styles.slider}
        value={shown}
        min={least}
        max={most}
        step={step}
        tooltip={{ open: false }}
        ariaLabelForHandle={label}
        onChange={setShown}
        onChangeComplete={rested}
      />
    </span>
  );
}
