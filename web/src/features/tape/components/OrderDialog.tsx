import { Button, Checkbox } from "antd";
import { useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { Dialog, ErrorNote } from "../../../shared/ui";
import { useSaveTapeOrder } from "../api";
import type { Site } from "../model";
import { moved } from "../order";
import styles from "./Dialogs.module.css";

interface Props {
  sites: Site[];
  order?: Schemas["TapeOrder"];
  open: boolean;
  onClose: () => void;
}

/** The order in which whoever is signed in tapes, and what they do not ask for. */
export function OrderDialog({ sites, order, open, onClose }: Props) {
  const { t } = useTranslation();
  const saving = useSaveTapeOrder();
  const shipped = sites.map(({ id }) => id);
  const [list, setList] = useState(order?.sites ?? shipped);
  const [left, setLeft] = useState(order?.left_out ?? []);
  useEffect(() => {
    if (open && order) {
      setList(order.sites);
      setLeft(order.left_out);
    }
  }, [open, order]);
  const step = (id: string, by: 1 | -1, button: HTMLElement) => {
    setList((list) => moved(list, id, by));
    // The button moves with its line; the focus goes along.
    requestAnimationFrame(() => button.focus());
  };
  const name = (id: string) => sites.find((site) => site.id === id)?.name ?? id;
  return (
    <Dialog open={open} title={t("tape.orderTitle")} wide onClose={onClose}>
      <p className="quiet">{t("tape.orderHint")}</p>
      <ol className={styles.order}>
        {list.map((id, index) => (
          <li key={id}>
            <Checkbox
              checked={!left.includes(id)}
              onChange={({ target }) =>
                setLeft(target.checked ? left.filter((one) => one !== id) : [...left, id])
              }
            >
              {name(id)}
            </Checkbox>
            <span>
              <button
                type="button"
                disabled={index === 0}
                aria-label={t("tape.earlier", { site: name(id) })}
                onClick={(event) => step(id, -1, event.currentTarget)}
              >
                ↑
              </button>
              <button
                type="button"
                disabled={index === list.length - 1}
                aria-label={t("tape.later", { site: name(id) })}
                onClick={(event) => step(id, 1, event.currentTarget)}
              >
                ↓
              </button>
            </span>
          </li>
        ))}
      </ol>
      {saving.error && <ErrorNote error={saving.error} />}
      <div className={styles.foot}>
        <Button
          type="primary"
          loading={saving.isPending}
          onClick={() => saving.mutate({ body: { sites: list, left_out: left } }, { onSuccess: onClose })}
        >
          {t("tape.orderSave")}
        </Button>
        <Button
          onClick={() => {
            setList(shipped);
            setLeft([]);
          }}
        >
          {t("tape.orderShipped")}
        </Button>
      </div>
    </Dialog>
  );
}
