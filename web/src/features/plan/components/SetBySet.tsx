import { Select } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Atlas } from "../../../shared/api/atlas";
import { Wrong } from "../../../shared/ui";
import { BOUNDS, type PartKind, parseRange, parseWhole, rangeText, type SetWritten, wroteSet } from "../dose";
import type { Card, Item, Spot, Week } from "../model";
import styles from "./CardPanel.module.css";
import { useTyped } from "./useTyped";

interface Props {
  week: Week;
  spot: Spot;
  card: Card;
  item?: Item;
  atlas: Atlas;
  onChange: (week: Week, tag?: string) => void;
}

/** Every set of a card, where sets differ: repetitions, what is left, the load's share, what follows straight on it. */
export function SetBySet({ week, spot, card, item, atlas, onChange }: Props) {
  const { t } = useTranslation();
  const [open, setOpen] = useState((card.written?.per_set ?? []).length > 0 || card.scheme != null);
  if (!open)
    return (
      <button type="button" className="text-button" onClick={() => setOpen(true)}>
        {t("card.setBySet")}
      </button>
    );
  const numbers = Array.from({ length: card.sets }, (_, index) => index + 1);
  const write = (number: number, change: Partial<SetWritten>) =>
    onChange(wroteSet(week, spot, number, change), `set ${number}`);
  return (
    <table className={styles.sets}>
      <caption>{t("card.setBySet")}</caption>
      <thead>
        <tr>
          <th scope="col">{t("card.set")}</th>
          <th scope="col">{item?.seconds ? t("card.seconds") : t("card.repsShort")}</th>
          <th scope="col">{t("card.left")}</th>
          <th scope="col">{t("card.share")}</th>
          <th scope="col">{t("card.after")}</th>
        </tr>
      </thead>
      <tbody>
        {numbers.map((number) => {
          const own = card.written?.per_set?.[number - 1] ?? {};
          const planned = item?.per_set?.find((set) => set.number === number);
          const range = rangeText(planned?.reps ?? planned?.seconds ?? item?.reps ?? item?.seconds);
          const part = (own.parts ?? planned?.parts)?.[0]?.kind ?? "";
          return (
            <tr key={number}>
              <th scope="row">{number}</th>
              <td>
                <Cell
                  label={t("card.setReps", { number })}
                  written={rangeText(own.reps ?? own.seconds)}
                  usual={range}
                  example="8–12"
                  parse={(typed) => parseRange(typed, item?.seconds ? BOUNDS.seconds : BOUNDS.reps)}
                  onWrite={(value) => write(number, item?.seconds ? { seconds: value } : { reps: value })}
                />
              </td>
              <td>
                <Cell
                  label={t("card.setLeft", { number })}
                  written={own.reserve == null ? "" : String(own.reserve)}
                  usual={String(planned?.reserve ?? item?.reserve ?? "")}
                  example="1"
                  parse={(typed) => parseWhole(typed, BOUNDS.reserve)}
                  onWrite={(reserve) => write(number, { reserve })}
                />
              </td>
              <td>
                <Cell
                  label={t("card.setShare", { number })}
                  written={own.load_pct == null ? "" : String(own.load_pct)}
                  usual={String(planned?.load_pct ?? 100)}
                  example="85"
                  parse={(typed) => parseWhole(typed, BOUNDS.load_pct)}
                  onWrite={(load_pct) => write(number, { load_pct })}
                />
              </td>
              <td>
                <Select
                  size="small"
                  variant="borderless"
                  aria-label={t("card.setThen", { number })}
                  value={part as PartKind | ""}
                  popupMatchSelectWidth={false}
                  onChange={(kind) => {
                    const rule = atlas.part_rules.find((part) => part.kind === kind);
                    write(number, { parts: rule ? [rule.usual] : [] });
                  }}
                  options={[
                    { value: "" as const, label: t("card.rests") },
                    ...atlas.part_rules.map(({ kind }) => ({ value: kind, label: t(`card.parts.${kind}`) })),
                  ]}
                />
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

interface CellProps<T> {
  label: string;
  written: string;
  usual: string;
  example: string;
  parse: (typed: string) => T | undefined;
  onWrite: (value: T | undefined) => void;
}

function Cell<T>({ label, written, usual, example, parse, onWrite }: CellProps<T>) {
  const { t } = useTranslation();
  const { value, wrong, onChange, onBlur } = useTyped(written, parse, onWrite);
  return (
    <>
      <input
        aria-label={label}
        data-touched={written !== "" || undefined}
        value={value}
        placeholder={usual}
        aria-invalid={wrong || undefined}
        onChange={(event) => onChange(event.target.value)}
        onBlur={onBlur}
      />
      {wrong && <Wrong>{t("card.wrong", { example })}</Wrong>}
    </>
  );
}
