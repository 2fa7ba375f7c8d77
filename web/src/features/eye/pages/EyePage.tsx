import { Button } from "antd";
import { useTranslation } from "react-i18next";
import { Link, useNavigate } from "react-router";
import { useAtlas } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { day } from "../../../shared/format";
import { Agreement, type Kind } from "../../../shared/judging";
import { Async, ErrorNote, failed, Title } from "../../../shared/ui";
import { shortcut } from "../../../shared/ui/acts";
import { useKeys } from "../../../shared/ui/keys";
import { useBegin, useEye } from "../api";
import styles from "../components/Eye.module.css";
import { Skills } from "../components/Skills";
import { sized } from "../model";

/** A step of a kind's scale in its unit. */
function stepOf(kinds: Schemas["KindSkill"][], kind: Kind): string {
  return sized(kind, kinds.find((known) => known.kind === kind)?.step ?? 0);
}

/** What the coach's own eye is worth, and the way to another sitting. */
export function EyePage() {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const eye = useEye();
  const atlas = useAtlas();
  const begin = useBegin();
  const start = () => {
    if (!begin.isPending) begin.mutate({}, { onSuccess: ({ id }) => navigate(`/eye/${id}`) });
  };
  useKeys({ begin: start });
  if (failed(eye, atlas) || !eye.data || !atlas.data) return <Async of={[eye, atlas]} />;
  const { open, pictures, kinds, past, agreement } = eye.data;
  return (
    <main className={styles.page}>
      <Title of={t("eye.title")} />
      <h1>{t("eye.title")}</h1>
      <div className={styles.columns}>
        <div>
          <p className={styles.lead}>{t("eye.lead", { count: pictures })}</p>
          <Button
            type="primary"
            onClick={start}
            loading={begin.isPending}
            aria-keyshortcuts={shortcut("begin")}
          >
            {open
              ? t("eye.goOn", { at: open.place + 1, count: pictures })
              : t(past.length > 0 ? "eye.again" : "eye.begin")}{" "}
            <kbd>n</kbd>
          </Button>
          {begin.error && <ErrorNote error={begin.error} onRetry={start} />}
          <h2>{t("eye.agreementTitle")}</h2>
          <Agreement agreement={agreement} />
          {past.length > 0 && (
            <>
              <h2>{t("eye.past")}</h2>
              <ul className={styles.past}>
                {past.map(({ id, date, right, of }) => (
                  <li key={id}>
                    <Link to={`/eye/${id}`}>{day(date)}</Link>
                    <span>{t("eye.pastLine", { right, of })}</span>
                  </li>
                ))}
              </ul>
            </>
          )}
        </div>
        <div>
          {kinds.map((known) => (
            <Skills key={known.kind} known={known} />
          ))}
          {past.length > 0 ? (
            <>
              <p className="quiet">{t("eye.whisker")}</p>
              <details>
                <summary>{t("eye.how")}</summary>
                <p>
                  {t("eye.howText", {
                    sides: stepOf(kinds, "left-right"),
                    standing: stepOf(kinds, "standing"),
                  })}
                </p>
              </details>
            </>
          ) : (
            <p className="quiet">{t("eye.none")}</p>
          )}
        </div>
      </div>
    </main>
  );
}
