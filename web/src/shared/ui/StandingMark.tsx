import { useTranslation } from "react-i18next";
import type { Schemas } from "../api/client";

type Standing = Schemas["Standing"];

/** Where the mark hangs from its line: left is behind, right is ahead. */
const HANGS: Record<Standing, number> = { behind: -3.5, level: 0, ahead: 3.5, unclear: 0 };

/** A verdict in a word, with the little plumb line it stands for. */
export function StandingMark({ standing, quiet = false }: { standing: Standing; quiet?: boolean }) {
  const { t } = useTranslation();
  const colour = standing === "unclear" ? "var(--level)" : `var(--${standing})`;
  return (
    <span style={{ color: colour, fontWeight: quiet ? 400 : 700, whiteSpace: "nowrap" }}>
      <svg
        width="14"
        height="12"
        viewBox="0 0 14 12"
        aria-hidden="true"
        style={{ marginRight: 5, verticalAlign: -1 }}
      >
        <path d="M7 0v12" stroke="var(--muted)" strokeWidth="1" />
        {standing === "unclear" ? (
          <path d="M2 6h10" stroke="currentColor" strokeWidth="2" strokeDasharray="2 1.500" />
        ) : (
          <circle cx={7 + HANGS[standing]} cy="6" r="3" fill="currentColor" />
        )}
      </svg>
      {t(`verdict.${standing}`)}
    </span>
  );
}
