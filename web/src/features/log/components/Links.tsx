import { Button, Input } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { useMay } from "../../../shared/api/may";
import { day, today } from "../../../shared/format";
import { ErrorNote, Section } from "../../../shared/ui";
import { useLinks, useMakeLink, useRevokeLink } from "../api";
import styles from "./Desk.module.css";

/** A season. */
const LINK_DAYS = 90;

const addressOf = (token: string) => `${window.location.origin}/my#${token}`;

/** The client's private links: made, shown once, taken back. */
export function Links({ clientId }: { clientId: string }) {
  const { t } = useTranslation();
  const may = useMay();
  const links = useLinks(clientId);
  const make = useMakeLink(clientId);
  const revoke = useRevokeLink(clientId);
  const [copied, setCopied] = useState(false);
  const init = { params: { path: { client_id: clientId } } };
  const token = make.data?.token;
  const stateOf = (link: Schemas["LinkView"]) => {
    if (link.revoked_on) return t("log.links.revoked", { date: day(link.revoked_on) });
    if (link.expires_on < today()) return t("log.links.over", { date: day(link.expires_on) });
    return t("log.links.until", { date: day(link.expires_on) });
  };
  const copy = async (address: string) => {
    await navigator.clipboard?.writeText(address);
    setCopied(true);
  };
  return (
    <Section title={t("log.links.title")} className={styles.links}>
      {[links.error, make.error, revoke.error].filter(Boolean).map((error) => (
        <ErrorNote key={String(error)} error={error} />
      ))}
      {links.data?.length === 0 && !token && <p>{t("log.links.none")}</p>}
      {token && (
        <div className={styles.token}>
          <p>{t("log.links.once")}</p>
          <Input
            readOnly
            value={addressOf(token)}
            aria-label={t("log.links.title")}
            onFocus={(event) => event.target.select()}
          />
          <Button onClick={() => void copy(addressOf(token))}>
            {copied ? t("log.links.copied") : t("log.links.copy")}
          </Button>
        </div>
      )}
      <ul>
        {links.data?.map((link) => (
          <li key={link.id}>
            <span>
              {stateOf(link)}{" "}
              <span className="quiet">
                {link.used_on ? t("log.links.used", { date: day(link.used_on) }) : t("log.links.unused")}
              </span>
            </span>
            {may("link") && !link.revoked_on && link.expires_on >= today() && (
              <button
                type="button"
                className="text-button"
                onClick={() => revoke.mutate({ params: { path: { client_id: clientId, link_id: link.id } } })}
              >
                {t("log.links.revoke")}
              </button>
            )}
          </li>
        ))}
      </ul>
      {may("link") && (
        <Button
          onClick={() => {
            setCopied(false);
            make.mutate({ ...init, body: { days: LINK_DAYS } });
          }}
        >
          {t("log.links.make")}
        </Button>
      )}
    </Section>
  );
}
