// The phone's camera in the page, as long as the page is seen.
import { useCallback, useEffect, useState } from "react";
import { type Trouble, troubleOf, within } from "./model";

/** What is asked of the camera; it gives what it has. */
const WISHED = {
  audio: false,
  video: { facingMode: "environment", width: { ideal: 2560 }, height: { ideal: 1440 } },
} as const;
/** Longer side of the copy that is looked at on the spot, px: it is sent while somebody waits. */
const LOOKED_AT_PX = 1280;
/** Longer side of the copy that the page itself looks at, px. */
const GLANCED_AT_PX = 480;

export interface Shot {
  /** As large as the camera gives it. */
  whole: Blob;
  small: Blob;
  /** For the page's own glance. */
  glance: ImageData;
}

export type CameraState = { is: "opening" } | { is: "open" } | { is: "shut"; trouble: Trouble };

function drawn(from: CanvasImageSource, [width, height]: [number, number]): HTMLCanvasElement {
  const canvas = document.createElement("canvas");
  [canvas.width, canvas.height] = [width, height];
  canvas.getContext("2d")?.drawImage(from, 0, 0, width, height);
  return canvas;
}

const jpeg = (canvas: HTMLCanvasElement, quality: number): Promise<Blob | null> =>
  new Promise((done) => canvas.toBlob(done, "image/jpeg", quality));

/** The camera's picture for a video element, and a way to take one. */
export function useCamera() {
  const [state, setState] = useState<CameraState>({ is: "opening" });
  const [video, setVideo] = useState<HTMLVideoElement | null>(null);
  const [stream, setStream] = useState<MediaStream>();

  useEffect(() => {
    let gone = false;
    let held: MediaStream | undefined;
    const open = async () => {
      // Browsers give no camera to a page without HTTPS.
      if (!navigator.mediaDevices?.getUserMedia) return setState({ is: "shut", trouble: "insecure" });
      try {
        held = await navigator.mediaDevices.getUserMedia(WISHED);
        if (gone) return close();
        // Another app took it, or the phone was locked.
        for (const track of held.getTracks())
          track.addEventListener("ended", () => setState({ is: "shut", trouble: "busy" }));
        setStream(held);
      } catch (error) {
        const name = error instanceof Error ? error.name : "";
        if (!gone) setState({ is: "shut", trouble: troubleOf(name) });
      }
    };
    const close = () => {
      for (const track of held?.getTracks() ?? []) track.stop();
    };
    void open();
    return () => {
      gone = true;
      close();
    };
  }, []);

  useEffect(() => {
    if (!video || !stream) return;
    video.srcObject = stream;
    const seen = () => setState({ is: "open" });
    video.addEventListener("loadeddata", seen);
    void video.play().catch(() => undefined);
    return () => video.removeEventListener("loadeddata", seen);
  }, [video, stream]);

  const shoot = useCallback(async (): Promise<Shot | undefined> => {
    if (!video || video.videoWidth === 0) return undefined;
    const [width, height] = [video.videoWidth, video.videoHeight];
    // All three are of one moment.
    const frame = drawn(video, [width, height]);
    const glanced = drawn(frame, within(width, height, GLANCED_AT_PX));
    const glance = glanced.getContext("2d")?.getImageData(0, 0, glanced.width, glanced.height);
    const small = await jpeg(drawn(frame, within(width, height, LOOKED_AT_PX)), 0.85);
    const whole = await jpeg(frame, 0.92);
    return glance && small && whole ? { whole, small, glance } : undefined;
  }, [video]);

  return { state, setVideo, shoot };
}
