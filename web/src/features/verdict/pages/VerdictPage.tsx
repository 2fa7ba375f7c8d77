import { useParams } from "react-router";
import { useAtlas } from "../../../shared/api/atlas";
import { Async, failed } from "../../../shared/ui";
import { useVerdict } from "../api";
import { VerdictDesk } from "./VerdictDesk";

/** The verdict as a step of a round. */
export function VerdictPage() {
  const { roundId = "" } = useParams();
  const atlas = useAtlas();
  const verdict = useVerdict(roundId);
  if (failed(atlas, verdict) || !atlas.data || !verdict.data) return <Async of={[atlas, verdict]} />;
  return (
    <VerdictDesk
      key={roundId}
      roundId={roundId}
      atlas={atlas.data}
      verdict={verdict.data}
      refetch={async () => (await verdict.refetch()).data}
    />
  );
}
