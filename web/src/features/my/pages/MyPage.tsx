import { lazy, Suspense, useEffect, useMemo, useState } from "react";
import { useTranslation } from "react-i18next";
import { problemOf } from "../../../shared/api/client";
import { METRIC, OwnMeasures } from "../../../shared/format";
import { useAsked, useWaiting, type Waiting } from "../../capture";
import { goOffline, linkSource, TrainingLog } from "../../log/phone";
import { MyConversation, useMyTalk } from "../../notes";
import { useMyPage } from "../api";
import { ForgetLink } from "../components/ForgetLink";
import { NoLink } from "../components/NoLink";
import { Pictures } from "../components/Pictures";
import { keepToken, linkToken, startHere } from "../token";
import styles from "./MyPage.module.css";

// Its charts are not on the way to the week; the worker keeps them all the same.
const SharedPart = lazy(async () => ({ default: (await import("../components/SharedPart")).SharedPart }));

const TABS = ["week", "pictures", "shared", "coach"] as const;

/** A client's own page: this week and its log, pictures to send, what the coach shares. */
export function MyPage() {
  const [token, setToken] = useState(linkToken);
  useEffect(goOffline, []);
  useEffect(() => {
    // Another link opened while the page is: nothing is loaded anew for what stands behind the #.
    const opened = () => setToken(linkToken());
    window.addEventListener("hashchange", opened);
    return () => window.removeEventListener("hashchange", opened);
  }, []);
  useEffect(() => {
    if (token) void startHere(token);
  }, [token]);
  const keep = (pasted: string) => {
    keepToken(pasted);
    setToken(pasted);
  };
  if (!token) return <NoLink onLink={keep} />;
  return <Own key={token} token={token} onForgotten={() => setToken(undefined)} />;
}

function Own({ token, onForgotten }: { token: string; onForgotten: () => void }) {
  const { t } = useTranslation();
  const [tab, setTab] = useState<(typeof TABS)[number]>("week");
  const page = useMyPage(token);
  const name = page.data?.client_name ?? "";
  const source = useMemo(() => linkSource(token, name), [token, name]);
  // What waits goes on its way as soon as the page is opened.
  const waiting = useWaiting(token);
  const unread = useMyTalk(token).data?.unread ?? 0;
  const shut = problemOf(page.error)?.status === 401 ? problemOf(page.error)?.detail : undefined;
  return (
    <div className={styles.page}>
      {tab === "week" && <TrainingLog source={source} title={t("my.week")} />}
      {tab !== "week" && (
        <main className={styles.part}>
          {shut && <p>{shut}</p>}
          {page.error && !shut && tab !== "pictures" && <p>{t("my.offline")}</p>}
          {tab === "pictures" && (
            <OwnMeasures value={page.data?.measures ?? METRIC}>
              <PicturesPart token={token} waiting={waiting} />
            </OwnMeasures>
          )}
          {page.data && tab === "shared" && (
            <Suspense>
              <OwnMeasures value={page.data.measures ?? METRIC}>
                <SharedPart token={token} shared={page.data.shared} />
              </OwnMeasures>
            </Suspense>
          )}
          {tab === "coach" && <MyConversation token={token} />}
          {tab === "shared" && <ForgetLink token={token} source={source.key} onForgotten={onForgotten} />}
        </main>
      )}
      <nav className={styles.tabs} aria-label={t("my.places")}>
        {TABS.map((one) => (
          <button
            key={one}
            type="button"
            aria-current={tab === one ? "page" : undefined}
            onClick={() => setTab(one)}
          >
            {t(`my.${one}`)}
            {one === "coach" && unread > 0 && <strong> {unread}</strong>}
          </button>
        ))}
      </nav>
    </div>
  );
}

/** Pictures work without a line too, as they were asked for when there was one. */
function PicturesPart({ token, waiting }: { token: string; waiting: Waiting }) {
  const { t } = useTranslation();
  const asked = useAsked(token);
  if (asked.data) return <Pictures token={token} asked={asked.data} waiting={waiting} />;
  // A link that is shut says so above.
  return asked.error && !problemOf(asked.error) ? <p>{t("my.offline")}</p> : null;
}
