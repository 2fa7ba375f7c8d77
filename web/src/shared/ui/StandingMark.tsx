import { useTranslation } from "react-i18next";
import type { Schemas } from "../api/client";
import { standingTone } from "./standing";

type Standing = Schemas["Standing"];

/** Where the mark hangs from its line: left is behind, right is ahead. */
const HANGS: Record<Standing, number> = {
  behind: -3.5,
  "leans-behind": -2,
  level: 0,
  "leans-ahead": 2,
  ahead: 3.5,
  unclear: 0,
};

/** A verdict in a word, with the little plumb line it stands for. */
export function StandingMark({ standing, quiet = false }: { standing: Standing; quiet?: boolean }) {
  const { t } = useTranslation();
  const { colour, hollow, dashed } = standingTone(standing);
  return (
    <span style={{ color: colour, fontWeight: quiet || hollow ? 400 : 700, whiteSpace: "nowrap" }}>
      <svg
        width="14"
        height="12"
        viewBox="0 0 14 12"
        aria-hidden="true"
        style={{ marginRight: 5, verticalAlign: -1 }}
      >
        <path d="M7 0v12" stroke="var(--muted)" strokeWidth="1" />
        {dashed ? (
          <path d="M2 6h10" stroke="currentColor" strokeWidth="2" strokeDasharray="2 1.500" />
        ) : (
          <circle
            cx={7 + HANGS[standing]}
            cy="6"
            r={hollow ? 2.4 : 3}
            fill={hollow ? "var(--ground)" : "currentColor"}
            stroke="currentColor"
            strokeWidth={hollow ? 1.3 : 0}
          />
        )}
      </svg>
      {t(`verdict.${standing}`)}
    </span>
  );
}
