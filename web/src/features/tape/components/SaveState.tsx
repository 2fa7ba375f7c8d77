import { useTranslation } from "react-i18next";
import type { Editor } from "../useSheetEditor";

/** Whether what is typed is safe, in words. */
export function SaveState({ editor }: { editor: Editor }) {
  const { t } = useTranslation();
  const wrong = Object.keys(editor.problems).length + editor.unreadable.length;
  const calm = editor.state === "saved" || editor.state === "saving" || editor.state === "unsaved";
  return (
    <span role="status" data-state={editor.state} style={{ color: calm ? "var(--muted)" : "var(--danger)" }}>
      {editor.state === "failed" && t("tape.failed", { why: editor.failure })}
      {editor.state === "partly" && t("tape.partly", { count: wrong })}
      {editor.state === "offline" && t("tape.offline")}
      {editor.state === "saving" && t("tape.saving")}
      {editor.state === "unsaved" && t("tape.unsaved")}
      {editor.state === "saved" && t("tape.saved")}
    </span>
  );
}
