import { Button } from "antd";
import { useTranslation } from "react-i18next";
import { Note } from "../ui";
import type { Conflict } from "./useDocument";

/** Two people, or two tabs, wrote on one sheet: whose counts is decided here, and nothing is lost either way. */
export function ConflictNote({ conflict }: { conflict?: Conflict }) {
  const { t } = useTranslation();
  if (!conflict) return null;
  return (
    <Note
      action={
        <>
          <Button onClick={conflict.takeTheirs}>{t("save.takeTheirs")}</Button>
          <Button type="primary" onClick={conflict.keepMine}>
            {t("save.keepMine")}
          </Button>
        </>
      }
    >
      {conflict.why ?? t("save.meanwhile")}.{" "}
      {conflict.clashes.length === 0 && t("save.differ", { count: conflict.differ })}
      {conflict.clashes.map(({ name, values }) => (
        <span key={name} style={{ display: "block" }}>
          {values
            ? t("save.clash", {
                name,
                mine: values.mine || t("save.nothing"),
                theirs: values.theirs || t("save.nothing"),
              })
            : t("save.clashWhole", { name })}
        </span>
      ))}
    </Note>
  );
}
