import { Button, Input } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { day } from "../../../shared/format";
import { Dialog, ErrorNote } from "../../../shared/ui";
import { useCopyWeek, useForgetWeek, useWeeks } from "../api";
import styles from "./Weeks.module.css";

interface Props {
  roundId: string;
  clientId: string;
  onTaken: (copied: Schemas["CopiedWeek"]) => void;
}

/** Above so many lines a list is searched rather than read. */
const SEARCHED_FROM = 8;

/** Takes a week the practice keeps, or what another client has, fitted to this client. */
export function TakeWeek({ roundId, clientId, onTaken }: Props) {
  const { t } = useTranslation();
  const [open, setOpen] = useState(false);
  const [search, setSearch] = useState("");
  const weeks = useWeeks(open);
  const copying = useCopyWeek(roundId);
  const forgetting = useForgetWeek();
  const kept = weeks.data?.kept ?? [];
  const others = (weeks.data?.others ?? []).filter(({ client_id }) => client_id !== clientId);
  const wanted = (name: string) => name.toLowerCase().includes(search.trim().toLowerCase());
  const take = async (from: Schemas["WeekSource"]) => {
    const copied = await copying.copy(from);
    if (!copied) return;
    setOpen(false);
    onTaken(copied);
  };
  const size = ({ days, minutes }: { days: number; minutes: number }) =>
    t("plan.weekSize", { count: days, minutes });
  return (
    <>
      <button type="button" className="text-button" onClick={() => setOpen(true)}>
        {t("plan.take")}
      </button>
      <Dialog open={open} title={t("plan.takeTitle")} onClose={() => setOpen(false)}>
        {(weeks.error ?? copying.error ?? forgetting.error) && (
          <ErrorNote error={weeks.error ?? copying.error ?? forgetting.error} />
        )}
        <p className="quiet">{t("plan.takeHint")}</p>
        {kept.length + others.length >= SEARCHED_FROM && (
          <Input
            aria-label={t("plan.findWeek")}
            placeholder={t("plan.findWeek")}
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
        )}
        <h3>{t("plan.keptWeeks")}</h3>
        {kept.length === 0 && weeks.data && <p className="quiet">{t("plan.noKept")}</p>}
        <ul className={styles.weeks}>
          {kept
            .filter(({ name }) => wanted(name))
            .map((week) => (
              <li key={week.id}>
                <Button disabled={copying.pending} onClick={() => take({ kept: week.id })}>
                  {week.name}
                </Button>
                <span className="quiet">
                  {size(week)}, {t("plan.keptBy", { name: week.saved_by, date: day(week.saved_on) })}
                </span>
                <button
                  type="button"
                  className="text-button"
                  aria-label={t("plan.forgetWeek", { name: week.name })}
                  onClick={() => forgetting.forget(week.id)}
                >
                  {t("plan.forget")}
                </button>
              </li>
            ))}
        </ul>
        <h3>{t("plan.othersWeeks")}</h3>
        {others.length === 0 && weeks.data && <p className="quiet">{t("plan.noOthers")}</p>}
        <ul className={styles.weeks}>
          {others
            .filter(({ client_name }) => wanted(client_name))
            .map((week) => (
              <li key={week.plan}>
                <Button disabled={copying.pending} onClick={() => take({ plan: week.plan })}>
                  {week.client_name}
                </Button>
                <span className="quiet">
                  {size(week)}, {t("plan.givenFrom", { date: day(week.starts_on) })}
                </span>
              </li>
            ))}
        </ul>
      </Dialog>
    </>
  );
}
