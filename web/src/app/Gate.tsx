import { Outlet } from "react-router";
import { OwnerForm, SignInForm, useSession } from "../features/signin";
import { ErrorNote } from "../shared/ui";

/** Shows the application to whoever is signed in, and the way in to everyone else. */
export function Gate() {
  const session = useSession();
  if (session.error) return <ErrorNote error={session.error} onRetry={() => session.refetch()} />;
  if (!session.data) return null;
  if (session.data.standing === "new") return <OwnerForm asksForCode={session.data.asks_for_code} />;
  if (session.data.standing === "signed-out") return <SignInForm />;
  return <Outlet />;
}
