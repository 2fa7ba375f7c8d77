import { useParams } from "react-router";
import { useAtlas } from "../../../shared/api/atlas";
import { ErrorNote } from "../../../shared/ui";
import { useSheet, useTapeOrder } from "../api";
import { TapeSheet } from "../components/TapeSheet";

/** The tape as a step of a round. */
export function TapePage() {
  const { roundId = "" } = useParams();
  const atlas = useAtlas();
  const sheet = useSheet(roundId);
  const order = useTapeOrder();
  const error = atlas.error ?? sheet.error;
  if (error) return <ErrorNote error={error} onRetry={() => sheet.refetch()} />;
  if (!atlas.data || !sheet.data || order.isPending) return null;
  const refetch = async () => (await sheet.refetch()).data;
  return (
    <TapeSheet
      key={roundId}
      roundId={roundId}
      sites={atlas.data.sites}
      folds={atlas.data.skinfolds}
      order={order.data}
      sheet={sheet.data}
      refetch={refetch}
    />
  );
}
