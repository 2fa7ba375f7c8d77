import { Button, Input, type InputRef, Pagination } from "antd";
import { useDeferredValue, useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import { useNavigate } from "react-router";
import { useMay } from "../../../shared/api/may";
import { ErrorNote, Title } from "../../../shared/ui";
import { shortcut } from "../../../shared/ui/acts";
import { useKeys } from "../../../shared/ui/keys";
import { PER_PAGE, useClients } from "../api";
import { ClientLine } from "../components/ClientLine";
import { lineTarget } from "../model";
import styles from "./ClientsPage.module.css";

/** Everyone, and what the newest round of each says. */
export function ClientsPage() {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const search = useRef<InputRef>(null);
  const [find, setFind] = useState("");
  const [page, setPage] = useState(1);
  const [picked, setPicked] = useState(-1);
  const [away, setAway] = useState(false);
  const may = useMay();
  const clients = useClients(useDeferredValue(find.trim()), page, away);
  const items = clients.data?.items ?? [];
  const move = (by: number) => setPicked((at) => Math.max(0, Math.min(items.length - 1, at + by)));
  const open = () => {
    const client = items[picked];
    if (client) navigate(lineTarget(client));
  };
  useKeys({ find: () => search.current?.focus(), next: () => move(1), previous: () => move(-1), open });
  if (clients.error) return <ErrorNote error={clients.error} onRetry={() => clients.refetch()} />;
  return (
    <main className={styles.page}>
      <div className={styles.head}>
        <Title of={t(away ? "clients.away" : "clients.title")} />
        <h1>{t(away ? "clients.away" : "clients.title")}</h1>
        <span className="quiet">{clients.data && t("clients.count", { count: clients.data.total })}</span>
        <Input
          ref={search}
          className={styles.find}
          value={find}
          allowClear
          placeholder={t("clients.find")}
          aria-label={t("clients.find")}
          aria-keyshortcuts={shortcut("find")}
          onChange={(event) => {
            setFind(event.target.value);
            setPage(1);
            setPicked(-1);
          }}
        />
        {may("brief") && (
          <Button type="primary" onClick={() => navigate("/clients/new")}>
            {t("clients.add")}
          </Button>
        )}
      </div>
      {clients.data && items.length + clients.data.unreadable.length === 0 && (
        <p className="quiet">
          {find ? t("clients.noneFound", { find }) : t(away ? "clients.noneAway" : "clients.none")}
        </p>
      )}
      {items.length > 0 && (
        <table className={styles.list}>
          <thead>
            <tr>
              <th scope="col">{t("clients.columns.client")}</th>
              <th scope="col">{t("clients.columns.stands")}</th>
              <th scope="col">{t("clients.columns.leans")}</th>
              <th scope="col">{t("clients.columns.round")}</th>
              <th scope="col">
                <span className="sr-only">{t("clients.columns.next")}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {items.map((client, index) => (
              <ClientLine key={client.id} client={client} picked={index === picked} />
            ))}
          </tbody>
        </table>
      )}
      {clients.data?.unreadable.map(({ id, name, says }) => (
        <p key={id} role="alert" className={styles.unreadable}>
          <strong>{name}</strong> {says}
        </p>
      ))}
      {clients.data && clients.data.total > PER_PAGE && (
        <Pagination
          current={page}
          pageSize={PER_PAGE}
          total={clients.data.total}
          showSizeChanger={false}
          onChange={setPage}
          className={styles.pages}
        />
      )}
      <button
        type="button"
        className={`text-button ${styles.away}`}
        onClick={() => {
          setAway(!away);
          setPage(1);
          setPicked(-1);
        }}
      >
        {t(away ? "clients.showHere" : "clients.showAway")}
      </button>
    </main>
  );
}
