import { useTranslation } from "react-i18next";
import { BodyFigure } from "../../../shared/figure";
import { Dialog } from "../../../shared/ui";
import type { Item } from "../model";
import styles from "./Phone.module.css";

interface Props {
  open: boolean;
  item: Item;
  felt?: string | null;
  onClose: () => void;
  onTell: (felt: string) => void;
}

/** Where it was felt: tapped on the small figure, or on the likely names. */
export function FeltSheet({ open, item, felt, onClose, onTell }: Props) {
  const { t } = useTranslation();
  const region = item.item.region;
  return (
    <Dialog open={open} onClose={onClose} title={t("felt.title")}>
      <BodyFigure
        label={t("felt.figure")}
        words={{ front: t("figure.front"), back: t("figure.back"), left: "L", right: "R" }}
        picked={felt ?? undefined}
        onPick={onTell}
        shade={(shown) =>
          shown === felt
            ? { fill: shown === region ? "var(--ahead)" : "var(--behind)" }
            : {
                fill: shown === region ? "var(--accent)" : "var(--level)",
                opacity: shown === region ? 0.55 : 0.16,
              }
        }
        width={300}
      />
      <div className={styles.choices}>
        {item.feels.map(({ id, name }) => (
          <button key={id} type="button" aria-pressed={felt === id} onClick={() => onTell(id)}>
            {name}
          </button>
        ))}
      </div>
      <button type="button" className={styles.big} onClick={onClose}>
        {t("pain.done")}
      </button>
    </Dialog>
  );
}
