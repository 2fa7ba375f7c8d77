import type { Pose } from "../model";
import poses from "../poses.json";

/** How to stand in a pose, as a path in a square of 100; not every pose is drawn. */
export const figureOf = (pose: Pose): string | undefined => (poses as Record<string, string>)[pose];

/** The same as a small figure, or the pose's letters where it is not drawn. */
export function Figure({ pose }: { pose: Pose }) {
  const path = figureOf(pose);
  if (!path) return <>{pose}</>;
  return (
    <svg viewBox="18 14 64 86" fill="currentColor" fillRule="evenodd" aria-hidden="true">
      <path d={path} />
    </svg>
  );
}
