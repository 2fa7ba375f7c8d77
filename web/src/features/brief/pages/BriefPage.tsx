import { useParams } from "react-router";
import { ErrorNote } from "../../../shared/ui";
import { useBrief } from "../api";
import { BriefForm } from "../components/BriefForm";

/** The brief as a step of a round. */
export function BriefPage() {
  const { clientId = "" } = useParams();
  const client = useBrief(clientId);
  if (client.error) return <ErrorNote error={client.error} onRetry={() => client.refetch()} />;
  if (!client.data) return null;
  return <BriefForm client={client.data} />;
}
