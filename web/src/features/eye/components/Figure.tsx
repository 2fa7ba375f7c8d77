import { useTranslation } from "react-i18next";
import { RegionFrames } from "../../../shared/judging";
import { framesOf, type Look, PICTURE } from "../model";
import styles from "./Eye.module.css";

/** The made-up figure, the part to be judged framed. */
export function Figure({ src, look, poseName }: { src: string; look: Look; poseName: string }) {
  const { t } = useTranslation();
  return (
    <div className={styles.figure}>
      <svg viewBox={`0 0 ${PICTURE.width} ${PICTURE.height}`} role="img">
        <title>{t("eye.picture", { pose: poseName })}</title>
        <image href={src} width={PICTURE.width} height={PICTURE.height} />
        <RegionFrames frames={framesOf(look)} />
      </svg>
    </div>
  );
}
