import { useParams } from "react-router";
import { useAtlas } from "../../../shared/api/atlas";
import { ErrorNote } from "../../../shared/ui";
import { useSheet } from "../api";
import { TapeSheet } from "../components/TapeSheet";

/** The tape as a step of a round. */
export function TapePage() {
  const { roundId = "" } = useParams();
  const atlas = useAtlas();
  const sheet = useSheet(roundId);
  const error = atlas.error ?? sheet.error;
  if (error) return <ErrorNote error={error} onRetry={() => sheet.refetch()} />;
  if (!atlas.data || !sheet.data) return null;
  const refetch = async () => (await sheet.refetch()).data;
  return (
    <TapeSheet
      key={roundId}
      roundId={roundId}
      sites={atlas.data.sites}
      sheet={sheet.data}
      refetch={refetch}
    />
  );
}
