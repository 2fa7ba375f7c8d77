import { Suspense } from "react";
import { Async, failed } from "../../../shared/ui";
import { doorOfRound, OpenedCapture, type Take, useToTake } from "../../capture";

interface Props {
  roundId: string;
  onTaken: (file: File, take: Take) => void;
  /** Lets go of what was refused of a pose: another one takes its place. */
  onAnother: (pose: Take["pose"]) => void;
  onClose: () => void;
}

/** The studio's own camera with last time's outline over it; what will do goes into the round at once. */
export function Studio({ roundId, onTaken, onAnother, onClose }: Props) {
  const asked = useToTake(roundId);
  if (failed(asked) || !asked.data) return <Async of={[asked]} />;
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
