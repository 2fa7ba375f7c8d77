import { useTranslation } from "react-i18next";
import type { SaveStanding } from "./useDocument";

interface Props {
  state: SaveStanding;
  failure?: string;
  /** Fields that could not be saved. */
  wrong?: number;
  /** This browser has no room to keep it. */
  unkept?: boolean;
  undo?: () => void;
  redo?: () => void;
}

/** Whether what is typed is safe, in words, and the way back. */
export function SaveState({ state, failure, wrong = 0, unkept = false, undo, redo }: Props) {
  const { t } = useTranslation();
  const shown = state === "saved" && wrong > 0 ? "partly" : state;
  const calm = shown === "saved" || shown === "saving" || shown === "unsaved";
  return (
    <span style={{ display: "inline-flex", gap: 14, alignItems: "baseline" }}>
      <span role="status" data-state={shown} style={{ color: calm ? "var(--muted)" : "var(--danger)" }}>
        {shown === "failed" && t("save.failed", { why: failure })}
        {shown === "partly" && t("save.partly", { count: wrong })}
        {shown === "offline" && t(unkept ? "save.offlineUnkept" : "save.offline")}
        {shown === "ended" && t(unkept ? "save.endedUnkept" : "save.ended")}
        {shown === "saving" && t("save.saving")}
        {shown === "unsaved" && t(unkept ? "save.unkept" : "save.unsaved")}
        {shown === "saved" && t("save.saved")}
      </span>
      <StepButton label={t("save.undo")} keys="Control+Z" step={undo} />
      <StepButton label={t("save.redo")} keys="Control+Y" step={redo} />
    </span>
  );
}

function StepButton({ label, keys, step }: { label: string; keys: string; step?: () => void }) {
  return (
    <button
      type="button"
      onClick={step}
      disabled={!step}
      aria-keyshortcuts={keys}
      style={{
        font: "inherit",
        border: "none",
        padding: 0,
        background: "none",
        color: step ? "var(--accent)" : "var(--muted)",
        opacity: step ? 1 : 0.75,
        cursor: step ? "pointer" : "default",
      }}
    >
      {label}
    </button>
  );
}
