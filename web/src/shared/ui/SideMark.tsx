import type { Schemas } from "../api/client";

/** A side of the client: its letter and a half-disc on that side, in its colour; never colour alone. */
export function SideMark({ side, label }: { side: Schemas["Side"]; label?: string }) {
  const left = side === "left";
  return (
    <span style={{ color: `var(--${side})`, fontWeight: 700, whiteSpace: "nowrap" }}>
      <svg
        width="11"
        height="11"
        viewBox="0 0 10 10"
        aria-hidden="true"
        style={{ marginRight: 4, verticalAlign: -1 }}
      >
        <circle cx="5" cy="5" r="4.300" fill="none" stroke="currentColor" strokeWidth="1.200" />
        <path
          d={left ? "M5 .7a4.300 4.300 0 0 0 0 8.600z" : "M5 .7a4.300 4.300 0 0 1 0 8.600z"}
          fill="currentColor"
        />
      </svg>
      {label ?? (left ? "L" : "R")}
    </span>
  );
}
