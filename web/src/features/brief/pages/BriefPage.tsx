import { useParams } from "react-router";
import { useAtlas } from "../../../shared/api/atlas";
import { Async, failed } from "../../../shared/ui";
import { Notes } from "../../notes";
import { useBrief, useUsualWeek } from "../api";
import { KeptBrief } from "../components/KeptBrief";
import { Leaving } from "../components/Leaving";
import { UsualWeekSection } from "../components/UsualWeekSection";

/** The brief as a step of a round. */
export function BriefPage() {
  const { clientId = "", roundId = "" } = useParams();
  const atlas = useAtlas();
  const client = useBrief(clientId);
  const week = useUsualWeek(clientId);
  if (failed(atlas, client, week) || !atlas.data || !client.data || !week.data)
    return <Async of={[atlas, client, week]} />;
  return (
    <>
      <KeptBrief
        key={clientId}
        atlas={atlas.data}
        client={client.data}
        refetch={async () => (await client.refetch()).data}
      />
      <UsualWeekSection
        key={`week ${clientId}`}
        clientId={clientId}
        atlas={atlas.data}
        stored={week.data}
        refetch={async () => (await week.refetch()).data}
      />
      <Notes key={`notes ${roundId}`} clientId={clientId} roundId={roundId} />
      <Leaving client={client.data} />
    </>
  );
}
