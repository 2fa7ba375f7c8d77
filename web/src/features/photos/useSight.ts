import { useEffect, useRef } from "react";
import { fitted, type Photo } from "./model";
import type { SightStore } from "./sight";

/** Where the windows of the light table look: at the whole figure first, then wherever they were moved. */
export function useSight(store: SightStore, photo: Photo, shown: string) {
  const size = useRef({ width: 0, height: 0 });
  const fitTo = useRef("");
  const showWhole = () => store.set(fitted(photo, size.current.width, size.current.height));
  const zoom = (factor: number) => {
    const { width, height } = size.current;
    const sight = store.get();
    const [x, y] = [width / 2, height / 2];
    store.set({
      scale: sight.scale * factor,
      x: x - (x - sight.x) * factor,
      y: y - (y - sight.y) * factor,
    });
  };
  // A new picture, another way to show it or another window is shown whole; moving a landmark changes nothing.
  const resized = (width: number, height: number) => {
    const key = `${photo.id} ${shown} ${width} ${height} ${photo.state}`;
    size.current = { width, height };
    if (fitTo.current !== key) {
      fitTo.current = key;
      showWhole();
    }
  };
  useEffect(() => {
    if (size.current.width > 0) resized(size.current.width, size.current.height);
  });
  return { resized, zoom, showWhole };
}
