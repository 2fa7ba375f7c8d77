import { useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import { RegionFrames } from "../../../shared/judging";
import { viewOf } from "../api";
import { fitted, framesOf, type Photo } from "../model";
import page from "../pages/PhotosPage.module.css";
import { SightStore } from "../sight";
import { Lines } from "./Lines";
import { Layer, Overlay, Pane } from "./Pane";

/** A picture without its date, mirrored or not, with the region framed. Sides are named as they are seen. */
export function Blind({ photo, region, mirrored }: { photo: Photo; region: string; mirrored: boolean }) {
  const { t } = useTranslation();
  const [store] = useState(() => new SightStore());
  const shownId = useRef("");
  const fit = (width: number, height: number) => {
    shownId.current = photo.id;
    store.set(fitted(photo, width, height));
  };
  const frames = framesOf(photo, region).map(({ side, ...frame }) => ({
    ...frame,
    side: side && mirrored ? (side === "left" ? ("right" as const) : ("left" as const)) : side,
  }));
  return (
    <div className={page.blind} style={{ display: "grid", transform: mirrored ? "scaleX(-1)" : undefined }}>
      <Pane key={photo.id} store={store} label={t("photos.again")} onResize={fit}>
        <Layer store={store} reference={photo} photo={photo} src={viewOf(photo)} />
        <Overlay store={store} reference={photo}>
          <Lines photo={photo} />
          <RegionFrames frames={frames} flipped={mirrored} />
        </Overlay>
      </Pane>
    </div>
  );
}
