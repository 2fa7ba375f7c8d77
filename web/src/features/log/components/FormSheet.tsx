import { useTranslation } from "react-i18next";
import { Dialog } from "../../../shared/ui";
import type { Form, Item } from "../model";
import styles from "./Phone.module.css";

interface Props {
  open: boolean;
  item: Item;
  told: Form[];
  onClose: () => void;
  onTell: (form: Form[]) => void;
}

/** What spoiled a set: two taps, and the load waits until it is gone. */
export function FormSheet({ open, item, told, onClose, onTell }: Props) {
  const { t } = useTranslation();
  return (
    <Dialog open={open} onClose={onClose} title={t("form.title")}>
      <div className={styles.choices}>
        {item.forms.map(({ form, says }) => (
          <button
            key={form}
            type="button"
            aria-pressed={told.includes(form)}
            onClick={() => onTell(told.includes(form) ? told.filter((one) => one !== form) : [...told, form])}
          >
            {says}
          </button>
        ))}
      </div>
      <button type="button" className={styles.big} onClick={onClose}>
        {t("pain.done")}
      </button>
    </Dialog>
  );
}
