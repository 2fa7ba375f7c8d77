import { Outlet } from "react-router";
import { SignInForm, useSession } from "../features/signin";
import { problemOf } from "../shared/api/client";
import { ErrorNote } from "../shared/ui";

/** The way to the log on a coach's phone: without a line it shows what the phone keeps; signed out it asks. */
export function PhoneGate() {
  const session = useSession();
  if (session.error && problemOf(session.error)) return <ErrorNote error={session.error} />;
  if (session.isPending) return null;
  if (session.data && session.data.standing !== "signed-in") return <SignInForm />;
  return <Outlet />;
}
