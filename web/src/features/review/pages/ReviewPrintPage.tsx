import { Button } from "antd";
import { useTranslation } from "react-i18next";
import { Link, useParams } from "react-router";
import { day } from "../../../shared/format";
import { Async, failed } from "../../../shared/ui";
import { useReview } from "../api";
import { Areas } from "../components/Areas";
import { PicturePairs } from "../components/PicturePairs";
import { RegionPart } from "../components/RegionPart";
import styles from "../components/Review.module.css";
import { decided } from "../model";

/** The review on paper, plain enough for a black-and-white printer. */
export function ReviewPrintPage() {
  const { t } = useTranslation();
  const { roundId = "", clientId = "" } = useParams();
  const review = useReview(roundId);
  if (failed(review) || !review.data) return <Async of={[review]} />;
  const { client_name, date, next, sessions_kept, sessions_planned, areas, regions, pictures } = review.data;
  const decisions = decided(review.data, {});
  return (
    <>
      <div className={styles.sheetTools}>
        <Link to={`/clients/${clientId}/rounds/${roundId}/review`}>{t("review.backTo")}</Link>
        <Button type="primary" onClick={() => window.print()}>
          {t("print.button")}
        </Button>
      </div>
      <main className={styles.sheet}>
        <h1 style={{ color: "#000", fontSize: 24 }}>{t("review.sheet", { name: client_name })}</h1>
        <p>
          {next
            ? t("review.between", { from: day(date), to: day(next.date) })
            : t("review.since", { from: day(date) })}
          {sessions_planned > 0 &&
            ` · ${t("review.sessions", { kept: sessions_kept, planned: sessions_planned })}`}
        </p>
        {areas.length > 0 && <Areas areas={areas} />}
        {regions.map((region) => (
          <RegionPart key={region.region} review={region} decision={decisions[region.region]} />
        ))}
        <PicturePairs pairs={pictures} />
        <p>{t("review.error")}</p>
      </main>
    </>
  );
}
