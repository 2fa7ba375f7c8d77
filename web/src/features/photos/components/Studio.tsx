import { Suspense, useEffect, useEffectEvent } from "react";
import { doorOfRound, OpenedCapture, type Take, useToTake } from "../../capture";

interface Props {
  roundId: string;
  onTaken: (file: File, take: Take) => void;
  /** Lets go of what was refused of a pose: another one takes its place. */
  onAnother: (pose: Take["pose"]) => void;
  /** What is asked for cannot be read. */
  onError: (error: unknown) => void;
  onClose: () => void;
}

/** The studio's own camera with last time's outline over it; what will do goes into the round at once. */
export function Studio({ roundId, onTaken, onAnother, onError, onClose }: Props) {
  const asked = useToTake(roundId);
  const shut = useEffectEvent((error: unknown) => {
    onError(error);
    onClose();
  });
  useEffect(() => {
    if (asked.error) shut(asked.error);
  }, [asked.error]);
  if (!asked.data) return null;
  const add = async (file: File, take: Take) => onTaken(file, take);
  return (
    <Suspense>
      <OpenedCapture
        door={doorOfRound(roundId)}
        asked={asked.data}
        waiting={{ add, clear: onAnother }}
        onClose={onClose}
      />
    </Suspense>
  );
}
