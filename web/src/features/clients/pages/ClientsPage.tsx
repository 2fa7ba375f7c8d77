import { Button, Input, type InputRef, Pagination } from "antd";
import { lazy, Suspense, useDeferredValue, useEffect, useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import { useLocation, useNavigate, useSearchParams } from "react-router";
import { useMay } from "../../../shared/api/may";
import { ErrorNote, Title, Wrong } from "../../../shared/ui";
import { shortcut } from "../../../shared/ui/acts";
import { useKeys } from "../../../shared/ui/keys";
import { PER_PAGE, useClients } from "../api";
import { ClientLine } from "../components/ClientLine";
import { Narrow } from "../components/Narrow";
import { addressOf, isNarrowed, lineTarget, type Narrowing, narrowingOf } from "../model";
import styles from "./ClientsPage.module.css";

/** Its calendar is fetched when somebody is chosen. */
const FirstLook = lazy(async () => ({ default: (await import("../../tour")).FirstLook }));
const AgreeOnRound = lazy(() => import("../components/AgreeOnRound"));

/** Marks an address that the list wrote itself. */
const OWN = "narrowed here";

/** Everyone, and what the newest round of each says. */
export function ClientsPage() {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const search = useRef<InputRef>(null);
  const [address, setAddress] = useSearchParams();
  // The fields do not wait for the address, which follows what is typed; another address is another list.
  const [narrowing, setNarrowing] = useState(() => narrowingOf(address));
  const ownDoing = useLocation().state === OWN;
  const elsewhere = ownDoing ? undefined : address.toString();
  useEffect(() => {
    if (elsewhere !== undefined) setNarrowing(narrowingOf(new URLSearchParams(elsewhere)));
  }, [elsewhere]);
  const { find, away, page } = narrowing;
  const [picked, setPicked] = useState(-1);
  const [chosen, setChosen] = useState<string[]>([]);
  const may = useMay();
  const clients = useClients(useDeferredValue(narrowing));
  const narrow = (change: Partial<Narrowing>) => {
    const next = { ...narrowing, page: 1, ...change };
    setNarrowing(next);
    setAddress(addressOf(next), { replace: true, state: OWN });
    setPicked(-1);
  };
  const items = clients.data?.items ?? [];
  const move = (by: number) => setPicked((at) => Math.max(0, Math.min(items.length - 1, at + by)));
  const open = () => {
    const client = items[picked];
    if (client) navigate(lineTarget(client));
  };
  const noneWord = () => {
    if (find.trim()) return t("clients.noneFound", { find: find.trim() });
    if (isNarrowed(narrowing)) return t("clients.noneSuch");
    return t(away ? "clients.noneAway" : "clients.none");
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
          onChange={(event) => narrow({ find: event.target.value })}
        />
        {may("brief") && (
          <Button type="primary" onClick={() => navigate("/clients/new")}>
            {t("clients.add")}
          </Button>
        )}
      </div>
      {clients.data && (isNarrowed(narrowing) || clients.data.total > 1) && (
        <Narrow narrowing={narrowing} tags={clients.data.tags} parts={clients.data.parts} onChange={narrow} />
      )}
      <Suspense>{chosen.length > 0 && <AgreeOnRound ids={chosen} onDone={() => setChosen([])} />}</Suspense>
      {clients.data && items.length + clients.data.unreadable.length === 0 && (
        <p className="quiet">{noneWord()}</p>
      )}
      {clients.data?.total === 0 && !away && !isNarrowed(narrowing) && (
        <Suspense>
          <FirstLook />
        </Suspense>
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
              <ClientLine
                key={client.id}
                client={client}
                picked={index === picked}
                chosen={chosen.includes(client.id)}
                onChoose={
                  away || !may("measure")
                    ? undefined
                    : (on) => setChosen(on ? [...chosen, client.id] : chosen.filter((id) => id !== client.id))
                }
              />
            ))}
          </tbody>
        </table>
      )}
      {clients.data?.unreadable.map(({ id, name, says }) => (
        <p key={id}>
          <Wrong>
            <strong>{name}</strong> {says}
          </Wrong>
        </p>
      ))}
      {clients.data && clients.data.total > PER_PAGE && (
        <Pagination
          current={page}
          pageSize={PER_PAGE}
          total={clients.data.total}
          showSizeChanger={false}
          onChange={(page) => narrow({ page })}
          className={styles.pages}
        />
      )}
      <button type="button" className={`text-button ${styles.away}`} onClick={() => narrow({ away: !away })}>
        {t(away ? "clients.showHere" : "clients.showAway")}
      </button>
    </main>
  );
}
