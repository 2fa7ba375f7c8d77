import { Button, Input } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { parseNumber, type Quantity, useQuantities } from "../../../shared/format";
import { Dialog, ErrorNote, Rows } from "../../../shared/ui";
import { useOverrule } from "../api";
import type { Item, Week } from "../model";
import styles from "./Desk.module.css";

/** What every exercise of this week is done with next time, why, and the coach's own word instead. */
export function Targets({ clientId, week }: { clientId: string; week: Week }) {
  const { t } = useTranslation();
  const { mass } = useQuantities();
  const [saying, setSaying] = useState<Item>();
  const overrule = useOverrule();
  const seen = new Set<string>();
  const items = week.sessions
    .flatMap(({ items }) => items)
    .filter(({ item }) => !seen.has(item.exercise) && seen.add(item.exercise));
  const open = (item: Item) => {
    overrule.reset();
    setSaying(item);
  };
  const path = (exercise: string) => ({ params: { path: { client_id: clientId, exercise } } });
  return (
    <>
      {overrule.error && !saying && <ErrorNote error={overrule.error} />}
      <Rows
        label={t("log.page.next")}
        rows={items}
        rowKey={({ item }) => item.exercise}
        stacked
        columns={[
          { key: "exercise", names: true, of: ({ item }) => item.name },
          { key: "target", whole: true, of: (item) => <strong>{targetText(mass, item)}</strong> },
          {
            key: "why",
            of: ({ target }) => (
              <>
                {target.step && <>{t("log.stepUp", { step: target.step })} </>}
                {target.why} {target.swap} {target.stall}
              </>
            ),
          },
          {
            key: "say",
            whole: true,
            of: (item) => {
              const said = item.target.kind === "overruled";
              const takeBack = () => overrule.mutate({ ...path(item.item.exercise), body: {} });
              return (
                <button type="button" className="text-button" onClick={said ? takeBack : () => open(item)}>
                  {t(said ? "log.page.takeBack" : "log.page.overrule")}
                </button>
              );
            },
          },
        ]}
      />
      {saying && (
        <Saying
          item={saying}
          error={overrule.error}
          onClose={() => setSaying(undefined)}
          onSay={(said) =>
            overrule.mutate(
              { ...path(saying.item.exercise), body: { overrule: said } },
              { onSuccess: () => setSaying(undefined) },
            )
          }
        />
      )}
    </>
  );
}

export function targetText(mass: Quantity, { target, item }: Item): string {
  const unit = item.seconds ? " s" : "";
  const same = new Set(target.counts).size === 1;
  const counts = same ? `${target.counts.length} × ${target.counts[0]}` : target.counts.join(", ");
  return target.load_kg != null ? `${mass.full(target.load_kg)} · ${counts}${unit}` : `${counts}${unit}`;
}

interface SayingProps {
  item: Item;
  /** Why what was said last was not taken; what was typed stays. */
  error: unknown;
  onClose: () => void;
  onSay: (said: { load_kg?: number; count: number; note: string }) => void;
}

function Saying({ item, error, onClose, onSay }: SayingProps) {
  const { t } = useTranslation();
  const { mass } = useQuantities();
  const [load, setLoad] = useState(item.target.load_kg != null ? mass.typed(item.target.load_kg) : "");
  const [count, setCount] = useState(String(item.target.counts[0] ?? ""));
  const [note, setNote] = useState("");
  const whole = parseNumber(count);
  const kg = load.trim() === "" ? undefined : mass.parse(load);
  const ready =
    whole !== undefined && whole >= 1 && note.trim() !== "" && (load.trim() === "" || kg !== undefined);
  return (
    <Dialog open title={t("log.page.dialog", { name: item.item.name })} onClose={onClose}>
      <div className={styles.fields}>
        <label htmlFor="overrule-load">{t("log.page.load", { unit: mass.unit })}</label>
        <Input id="overrule-load" value={load} onChange={(event) => setLoad(event.target.value)} />
        <label htmlFor="overrule-count">{t("log.page.count")}</label>
        <Input id="overrule-count" value={count} onChange={(event) => setCount(event.target.value)} />
      </div>
      <label htmlFor="overrule-note" className="quiet">
        {t("log.page.reason")}
      </label>
      <Input.TextArea
        id="overrule-note"
        rows={2}
        value={note}
        onChange={(event) => setNote(event.target.value)}
      />
      {error ? <ErrorNote error={error} /> : null}
      <Button
        type="primary"
        style={{ marginTop: 12 }}
        disabled={!ready}
        onClick={() =>
          whole !== undefined && onSay({ load_kg: kg, count: Math.round(whole), note: note.trim() })
        }
      >
        {t("log.page.save")}
      </Button>
    </Dialog>
  );
}
