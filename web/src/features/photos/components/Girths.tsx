import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { type Quantity, useQuantities } from "../../../shared/format";
import { Rows, Section } from "../../../shared/ui";
import { girthRows, type SeenGirth, unseenByWhy } from "../model";
import styles from "./Girths.module.css";

/** Standard errors to either side that hold 95 % of a normal error. */
const TWO_SIDED_95 = 1.96;

/** What a round's pictures say of girths, how sure each is, and what they do not show. */
export function Girths({ girths }: { girths: Schemas["RoundGirths"] }) {
  const { t } = useTranslation();
  const { length } = useQuantities();
  const names = useNames();
  const rows = girthRows(girths.sites);
  const own = Math.max(0, ...girths.sites.map(({ pairs }) => pairs));
  if (rows.length === 0 && girths.missing.length === 0) return null;
  const value = (seen?: SeenGirth) => seen && <Value seen={seen} length={length} />;
  return (
    <Section title={t("photos.girths.title")} className={styles.girths}>
      <p className="quiet">
        {t("photos.girths.how", { bodies: girths.bodies })}{" "}
        {girths.practice && (
          <>
            {t("photos.girths.practice", {
              pairs: girths.practice.pairs,
              count: girths.practice.clients,
            })}{" "}
          </>
        )}
        {t(own > 0 ? "photos.girths.own" : "photos.girths.notOwn", { count: own })}
      </p>
      {rows.length > 0 && (
        <Rows
          label={t("photos.girths.title")}
          rows={rows}
          rowKey={({ site }) => site}
          columns={[
            {
              key: "site",
              title: t("photos.girths.site", { unit: length.unit }),
              names: true,
              of: ({ site }) => names.site(site),
            },
            { key: "left", title: t("photos.girths.left"), of: ({ left, whole }) => value(whole ?? left) },
            { key: "right", title: t("photos.girths.right"), of: ({ right }) => value(right) },
            {
              key: "from",
              title: t("photos.girths.from"),
              of: ({ from }) => t(`photos.girths.rests.${from}`),
            },
          ]}
        />
      )}
      {girths.missing.length > 0 && (
        <dl className={styles.missing}>
          {unseenByWhy(girths.missing).map(({ why, sites }) => (
            <div key={why}>
              <dt>{sites.map(names.site).join(", ")}</dt>
              <dd className="quiet">{why}</dd>
            </div>
          ))}
        </dl>
      )}
    </Section>
  );
}

/** A girth with its error, and what the tape said the same day. */
function Value({ seen, length }: { seen: SeenGirth; length: Quantity }) {
  const { t } = useTranslation();
  return (
    <span className={styles.value}>
      <strong>{length.text(seen.cm)}</strong> ± {length.text((TWO_SIDED_95 * seen.cm * seen.error_pct) / 100)}
      {typeof seen.tape_cm === "number" && (
        <span className="quiet">{t("photos.girths.tape", { value: length.text(seen.tape_cm) })}</span>
      )}
    </span>
  );
}
