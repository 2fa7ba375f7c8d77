import { useParams } from "react-router";
import { useAtlas } from "../../../shared/api/atlas";
import { ErrorNote } from "../../../shared/ui";
import { useClient, useTests } from "../api";
import { MotionSection } from "../components/MotionSection";
import { TestsSheet } from "../components/TestsSheet";

/** The tests as a step of a round. */
export function TestsPage() {
  const { roundId = "", clientId = "" } = useParams();
  const atlas = useAtlas();
  const tests = useTests(roundId);
  const client = useClient(clientId);
  const error = atlas.error ?? tests.error ?? client.error;
  if (error) return <ErrorNote error={error} onRetry={() => tests.refetch()} />;
  if (!atlas.data || !tests.data || !client.data) return null;
  return (
    <TestsSheet
      key={roundId}
      roundId={roundId}
      atlas={atlas.data}
      sheet={tests.data}
      refetch={async () => (await tests.refetch()).data}
      motion={
        <MotionSection
          key={clientId}
          client={client.data}
          screens={atlas.data.screens}
          refetch={async () => (await client.refetch()).data}
        />
      }
    />
  );
}
