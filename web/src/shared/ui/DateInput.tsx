import { DatePicker } from "antd";
import dayjs from "dayjs";
import customParseFormat from "dayjs/plugin/customParseFormat";
import updateLocale from "dayjs/plugin/updateLocale";
import { type FormEvent, useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import { day, dayPattern, shortMonths } from "../format";
import { Wrong } from "./Wrong";

interface Props {
  id?: string;
  /** A day as it is kept, `YYYY-MM-DD`; empty for none. */
  value?: string;
  onChange?: (day: string) => void;
  /** No earlier and no later day can be chosen. */
  min?: string;
  max?: string;
  /** Its calendar opens over it, where what is pressed next stands below. */
  above?: boolean;
  "aria-label"?: string;
}

const KEPT = "YYYY-MM-DD";

/** A day of the calendar, shown as days are everywhere else; typed like that, as it is kept, or chosen. */
export function DateInput({ value, onChange, min, max, above = false, ...input }: Props) {
  const { t } = useTranslation();
  // The picker's own months are not the browser's: "Sep" beside "Sept". Extended here, so that pages without days fetch none of it.
  dayjs.extend(updateLocale);
  dayjs.extend(customParseFormat);
  // A week begins on Monday, here as on the board.
  dayjs.updateLocale("en", { monthsShort: shortMonths(), weekStart: 1 });
  const formats = [dayPattern(), KEPT, "D.M.YYYY"];
  // What was typed last and is no day: the picker puts the old one back, and that has to be said.
  const unread = useRef("");
  const [refused, setRefused] = useState("");
  const typed = ({ target }: FormEvent<HTMLElement>) => {
    // The picker takes what is typed once the field is left, which is too late for a button that is pressed next.
    const text = (target as HTMLInputElement).value?.trim() ?? "";
    const read = formats.map((format) => dayjs(text, format, true)).find((one) => one.isValid());
    const kept = read?.format(KEPT);
    const fits = kept !== undefined && (!min || kept >= min) && (!max || kept <= max);
    unread.current = fits ? "" : text;
    setRefused("");
    if (fits && kept !== value) onChange?.(kept);
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: hears what happens in the picker's own field
    <span
      onChange={typed}
      onBlur={() => {
        setRefused(unread.current);
        unread.current = "";
      }}
      style={{ display: "inline-block", minWidth: 150, verticalAlign: "top" }}
    >
      <DatePicker
        {...input}
        value={value ? dayjs(value) : null}
        format={formats}
        minDate={min ? dayjs(min) : undefined}
        maxDate={max ? dayjs(max) : undefined}
        allowClear={false}
        placement={above ? "topLeft" : "bottomLeft"}
        placeholder=""
        style={{ width: "100%" }}
        status={refused ? "error" : undefined}
        onChange={(chosen) => {
          unread.current = "";
          setRefused("");
          onChange?.(chosen?.format(KEPT) ?? "");
        }}
      />
      {refused && (
        <Wrong>{t("day.refused", { text: refused, example: day(min ?? max ?? "2026-03-02") })}</Wrong>
      )}
    </span>
  );
}
