import { Button } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { today } from "../../../shared/format";
import { DateInput, ErrorNote } from "../../../shared/ui";
import { useAgreeOnRound } from "../api";
import styles from "./AgreeOnRound.module.css";

interface Props {
  /** With whom. */
  ids: string[];
  onDone: () => void;
  /** Of one client alone, who was not chosen from a list. */
  alone?: boolean;
}

/** A day for the next round of a client, or of several at once. */
export default function AgreeOnRound({ ids, onDone, alone = false }: Props) {
  const { t } = useTranslation();
  const agree = useAgreeOnRound();
  const [on, setOn] = useState(today());
  const send = (day?: string) => agree.mutate({ body: { client_ids: ids, on: day } }, { onSuccess: onDone });
  return (
    <section className={alone ? styles.alone : styles.bar} aria-label={t("clients.nextRound")}>
      {!alone && <strong>{t("clients.chosen", { count: ids.length })}</strong>}
      <label>
        {t("clients.nextRound")}{" "}
        <DateInput aria-label={t("clients.nextRound")} min={today()} value={on} onChange={setOn} />
      </label>
      <Button type="primary" loading={agree.isPending} onClick={() => send(on)}>
        {t(alone ? "clients.agreeOne" : "clients.agree")}
      </Button>
      <Button onClick={() => send()}>{t("clients.noDay")}</Button>
      {!alone && (
        <Button type="text" onClick={onDone}>
          {t("clients.letGo")}
        </Button>
      )}
      {agree.error ? <ErrorNote error={agree.error} /> : null}
    </section>
  );
}
