import { useTranslation } from "react-i18next";
import type { Atlas } from "../../../shared/api/atlas";
import styles from "./RegionCard.module.css";

interface Props {
  region: Atlas["regions"][number];
  atlas: Atlas;
  onClear: () => void;
}

/** What a region is, what it does, why it lags, what takes over from it, and in which poses it is seen. */
export function RegionCard({ region, atlas, onClear }: Props) {
  const { t } = useTranslation();
  const over = (id: string) =>
    atlas.regions.find((other) => other.id === id)?.name ?? atlas.takeovers[id] ?? id;
  const poses = atlas.poses.filter(({ id }) => region.poses.includes(id)).map(({ name }) => name);
  return (
    <section className={styles.card} aria-label={region.name}>
      <header>
        <h2>{region.name}</h2>
        <button type="button" onClick={onClear}>
          {t("library.allRegions")}
        </button>
      </header>
      <dl>
        <dt>{t("library.does")}</dt>
        <dd>{region.action}</dd>
        <dt>{t("library.lags")}</dt>
        <dd>{region.lags_because}</dd>
        {region.taken_over_by.length > 0 && (
          <>
            <dt>{t("library.takenOver")}</dt>
            <dd>{region.taken_over_by.map(over).join(", ")}</dd>
          </>
        )}
        <dt>{t("library.seenIn")}</dt>
        <dd>{poses.join(", ")}</dd>
      </dl>
    </section>
  );
}
