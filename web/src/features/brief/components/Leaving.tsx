import { App, Button, Input } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { useNavigate } from "react-router";
import { problemOf, type Schemas } from "../../../shared/api/client";
import { useMay } from "../../../shared/api/may";
import { day } from "../../../shared/format";
import { Fetch } from "../../../shared/send";
import { Async, Dialog, ErrorNote, failed, Section } from "../../../shared/ui";
import { useBelongings, useErase, usePutAway } from "../api";
import styles from "./UsualWeek.module.css";

/** Putting a client away, out of the lists, and erasing them after a look at what goes. */
export function Leaving({ client }: { client: Schemas["ClientView"] }) {
  const { t } = useTranslation();
  const { message } = App.useApp();
  const may = useMay();
  const putting = usePutAway();
  const [erasing, setErasing] = useState(false);
  if (!may("put-away")) return null;
  const away = client.put_away_on;
  const put = () =>
    putting.mutate(
      { params: { path: { client_id: client.id } }, body: { away: !away } },
      { onError: (error) => message.error(problemOf(error)?.detail ?? t("error.unknown")) },
    );
  return (
    <Section title={t("leaving.title")} className={styles.leaving}>
      <p className="quiet">{away ? t("leaving.isAway", { date: day(away) }) : t("leaving.awayHint")}</p>
      <Button onClick={put} loading={putting.isPending}>
        {t(away ? "leaving.back" : "leaving.away")}
      </Button>{" "}
      {may("erase") && (
        <Button danger onClick={() => setErasing(true)}>
          {t("leaving.erase")}
        </Button>
      )}
      <Dialog
        open={erasing}
        title={t("leaving.eraseTitle", { name: client.brief.name })}
        onClose={() => setErasing(false)}
      >
        {erasing && <Erase client={client} />}
      </Dialog>
    </Section>
  );
}

type Part = "rounds" | "pictures" | "plans" | "entries" | "links";

/** What goes, a way to keep it, and the name to be typed before it goes. */
function Erase({ client }: { client: Schemas["ClientView"] }) {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const all = useBelongings(client.id);
  const erase = useErase();
  const [typed, setTyped] = useState("");
  const { name } = client.brief;
  const go = () =>
    erase.mutate(
      { params: { path: { client_id: client.id } } },
      { onSuccess: () => navigate("/clients", { replace: true }) },
    );
  if (failed(all) || !all.data) return <Async of={[all]} />;
  const { rounds, pictures, plans, log_entries: entries, links } = all.data;
  const parts = Object.entries({ rounds, pictures, plans, entries, links }).filter(([, count]) => count > 0);
  const what = parts.map(([part, count]) => t(`leaving.parts.${part as Part}`, { count }));
  return (
    <>
      <p>{t("leaving.goes", { what: [t("leaving.parts.brief"), ...what].join(", ") })}</p>
      <p>
        <Fetch href={`/api/v1/clients/${client.id}/archive`}>{t("leaving.keep")}</Fetch>
      </p>
      <p>
        <label htmlFor="erase-name">{t("leaving.typeName", { name })}</label>
        <Input id="erase-name" value={typed} onChange={(event) => setTyped(event.target.value)} />
      </p>
      {erase.error && <ErrorNote error={erase.error} />}
      <Button danger type="primary" disabled={typed.trim() !== name} loading={erase.isPending} onClick={go}>
        {t("leaving.eraseNow")}
      </Button>
    </>
  );
}
