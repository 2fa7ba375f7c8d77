import { Button, Input } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { day } from "../../../shared/format";
import { Dialog, ErrorNote, Section } from "../../../shared/ui";
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
        <Weeks
          title={t("plan.keptWeeks")}
          none={weeks.data && t("plan.noKept")}
          disabled={copying.pending}
          weeks={kept
            .filter(({ name }) => wanted(name))
            .map((week) => ({
              id: week.id,
              name: week.name,
              about: `${size(week)}, ${t("plan.keptBy", { name: week.saved_by, date: day(week.saved_on) })}`,
              take: () => take({ kept: week.id }),
              forget: () => forgetting.forget(week.id),
            }))}
        />
        <Weeks
          title={t("plan.othersWeeks")}
          none={weeks.data && t("plan.noOthers")}
          disabled={copying.pending}
          weeks={others
            .filter(({ client_name }) => wanted(client_name))
            .map((week) => ({
              id: week.plan,
              name: week.client_name,
              about: `${size(week)}, ${t("plan.givenFrom", { date: day(week.starts_on) })}`,
              take: () => take({ plan: week.plan }),
            }))}
        />
      </Dialog>
    </>
  );
}

interface WeeksProps {
  title: string;
  /** What is said of an empty list, once it is known to be empty. */
  none?: string;
  disabled: boolean;
  weeks: { id: string; name: string; about: string; take: () => void; forget?: () => void }[];
}

/** Weeks under a heading, each a button with what it is; those of the practice can be forgotten. */
function Weeks({ title, none, disabled, weeks }: WeeksProps) {
  const { t } = useTranslation();
  return (
    <Section title={title} level={3}>
      {weeks.length === 0 && <p className="quiet">{none}</p>}
      <ul className={styles.weeks}>
        {weeks.map(({ id, name, about, take, forget }) => (
          <li key={id}>
            <Button disabled={disabled} onClick={take}>
              {name}
            </Button>
            <span className="quiet">{about}</span>
            {forget && (
              <button
                type="button"
                className="text-button"
                aria-label={t("plan.forgetWeek", { name })}
                onClick={forget}
              >
                {t("plan.forget")}
              </button>
            )}
          </li>
        ))}
      </ul>
    </Section>
  );
}
