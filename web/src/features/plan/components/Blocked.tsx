import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { sentence } from "../model";

/** What could not be met, the rule in the way, and the nearest possible thing. */
export function Blocked({ blocked }: { blocked: Schemas["BlockedEntry"][] }) {
  const { t } = useTranslation();
  if (blocked.length === 0) return null;
  return (
    <section
      style={{
        borderLeft: "4px solid var(--accent)",
        background: "var(--sunken)",
        padding: "8px 14px",
        marginBottom: 16,
      }}
    >
      <h2 style={{ fontSize: 15 }}>{t("plan.blocked")}</h2>
      <ul style={{ margin: "4px 0 0", paddingLeft: 18 }}>
        {blocked.map(({ demand, rule, nearest }) => (
          <li key={demand}>
            {sentence(demand)} {t("plan.inTheWay", { rule })} {nearest}
          </li>
        ))}
      </ul>
    </section>
  );
}
