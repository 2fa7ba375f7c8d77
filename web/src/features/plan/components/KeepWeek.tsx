import { Button, Input } from "antd";
import { useId, useState } from "react";
import { useTranslation } from "react-i18next";
import { problemOf } from "../../../shared/api/client";
import { Dialog, ErrorNote } from "../../../shared/ui";
import { useKeepWeek } from "../api";
import type { Week } from "../model";
import styles from "./Weeks.module.css";

/** Keeps the week on the board under a name, for any client. */
export function KeepWeek({ week }: { week: Week }) {
  const { t } = useTranslation();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState("");
  const [kept, setKept] = useState<string>();
  const keeping = useKeepWeek();
  const field = useId();
  const taken = problemOf(keeping.error)?.status === 409;
  const keep = async (replace: boolean) => {
    if (!(await keeping.keep({ name, week, replace }))) return;
    setKept(name.trim());
    setOpen(false);
    setName("");
  };
  return (
    <>
      <button type="button" className="text-button" onClick={() => setOpen(true)}>
        {t("plan.keepWeek")}
      </button>
      <span role="status" className="quiet">
        {kept && t("plan.weekKept", { name: kept })}
      </span>
      <Dialog open={open} title={t("plan.keepTitle")} onClose={() => setOpen(false)}>
        <form
          className={styles.keep}
          onSubmit={(event) => {
            event.preventDefault();
            void keep(false);
          }}
        >
          <label htmlFor={field}>{t("plan.weekName")}</label>
          <Input
            id={field}
            autoFocus
            value={name}
            maxLength={60}
            onChange={(event) => {
              keeping.reset();
              setName(event.target.value);
            }}
          />
          {keeping.error && <ErrorNote error={keeping.error} />}
          <div>
            {taken ? (
              <Button type="primary" onClick={() => keep(true)}>
                {t("plan.replaceWeek")}
              </Button>
            ) : (
              <Button
                type="primary"
                htmlType="submit"
                loading={keeping.pending}
                disabled={name.trim() === ""}
              >
                {t("plan.keepNow")}
              </Button>
            )}
          </div>
        </form>
      </Dialog>
    </>
  );
}
