import { useDeferredValue, useState } from "react";
import { useTranslation } from "react-i18next";
import styles from "./MovementPicture.module.css";

interface Props {
  exercise: string;
  /** Its name, where the picture tells more than what stands beside it. */
  name?: string;
  /** On paper it is there before anybody scrolls to it. */
  size?: "small" | "phone" | "large" | "paper";
}

/** An exercise of the catalogue as it is done: pale where it starts, in ink where it ends. The practice's own have no picture. */
export function MovementPicture({ exercise, name, size = "small" }: Props) {
  const { t } = useTranslation();
  const [missing, setMissing] = useState<string>();
  // What is to be read and pressed comes first; on paper everything is there at once.
  const drawn = useDeferredValue(true, size === "paper");
  if (missing === exercise) return null;
  if (!drawn) return <span className={styles[size]} />;
  return (
    <img
      src={`/api/v1/figures/${exercise}`}
      alt={name ? t("figure.movement", { name }) : ""}
      loading={size === "paper" ? "eager" : "lazy"}
      decoding="async"
      className={styles[size]}
      onError={() => setMissing(exercise)}
    />
  );
}
