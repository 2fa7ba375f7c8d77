import { useParams } from "react-router";
import { useAtlas } from "../../../shared/api/atlas";
import { ErrorNote } from "../../../shared/ui";
import { useVerdict } from "../api";
import { VerdictDesk } from "./VerdictDesk";

/** The verdict as a step of a round. */
export function VerdictPage() {
  const { roundId = "" } = useParams();
  const atlas = useAtlas();
  const verdict = useVerdict(roundId);
  const error = atlas.error ?? verdict.error;
  if (error) return <ErrorNote error={error} onRetry={() => verdict.refetch()} />;
  if (!atlas.data || !verdict.data) return null;
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
