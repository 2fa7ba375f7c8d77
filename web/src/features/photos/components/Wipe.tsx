import { useRef } from "react";
import { useTranslation } from "react-i18next";
import styles from "./Table.module.css";

/** The edge between two pictures: dragged, or moved with the arrow keys. Percent of the window from its left. */
export function Wipe({ at, onMove }: { at: number; onMove: (percent: number) => void }) {
  const { t } = useTranslation();
  const held = useRef(false);
  const clamp = (percent: number) => Math.min(Math.max(percent, 0), 100);
  return (
    <button
      type="button"
      data-handle
      role="slider"
      aria-label={t("photos.wipeAt")}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(at)}
      aria-orientation="horizontal"
      className={styles.wipe}
      style={{ left: `${at}%` }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = true;
      }}
      onPointerMove={(event) => {
        const box = event.currentTarget.parentElement?.getBoundingClientRect();
        if (held.current && box) onMove(clamp((100 * (event.clientX - box.left)) / box.width));
      }}
      onPointerUp={() => {
        held.current = false;
      }}
      onKeyDown={(event) => {
        const by = { ArrowLeft: -2, ArrowRight: 2 }[event.key];
        if (by === undefined) return;
        event.preventDefault();
        onMove(clamp(at + by));
      }}
    />
  );
}
