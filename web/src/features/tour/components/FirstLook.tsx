import { Button } from "antd";
import type { ReactNode } from "react";
import { useTranslation } from "react-i18next";
import { Link, useNavigate } from "react-router";
import { useMay } from "../../../shared/api/may";
import { ErrorNote } from "../../../shared/ui";
import { useMakeUp } from "../api";
import styles from "./FirstLook.module.css";
import { Gives, Hangs, Measures } from "./Sketches";

const CARDS: { key: "measure" | "see" | "give"; sketch: ReactNode }[] = [
  { key: "measure", sketch: <Measures /> },
  { key: "see", sketch: <Hangs /> },
  { key: "give", sketch: <Gives /> },
];

/** What the round is, in three cards; then a made-up client to walk through it with, or the first real one. */
export function FirstLook() {
  const { t } = useTranslation();
  const may = useMay();
  const navigate = useNavigate();
  const makeUp = useMakeUp();
  const look = () =>
    makeUp.mutate(
      {},
      {
        onSuccess: ({ client_id: client, round_id: round }) =>
          navigate(`/clients/${client}/rounds/${round}/verdict`),
      },
    );
  return (
    <section aria-label={t("tour.title")}>
      <ol className={styles.cards}>
        {CARDS.map(({ key, sketch }) => (
          <li key={key}>
            {sketch}
            <h2>{t(`tour.${key}`)}</h2>
            <p>{t(`tour.${key}Text`)}</p>
          </li>
        ))}
      </ol>
      {may("brief") && (
        <div className={styles.go}>
          <Button type="primary" size="large" loading={makeUp.isPending} onClick={look}>
            {t("tour.look")}
          </Button>
          <Link to="/clients/new">{t("tour.first")}</Link>
        </div>
      )}
      {makeUp.error && <ErrorNote error={makeUp.error} />}
      <p className={`quiet ${styles.hint}`}>{t("tour.hint")}</p>
    </section>
  );
}
