import { Outlet } from "react-router";
import { OwnerForm, SignInAgain, SignInForm, useAccount } from "../features/signin";
import { ErrorNote } from "../shared/ui";
import styles from "./Gate.module.css";

/** Shows the application to whoever is signed in, and the way in to everyone else; over the page when a session ended. */
export function Gate() {
  const { session, account, ended } = useAccount();
  if (account === undefined) {
    if (session.error) return <ErrorNote error={session.error} onRetry={() => session.refetch()} />;
    if (session.data?.standing === "new") return <OwnerForm asksForCode={session.data.asks_for_code} />;
    return session.data?.standing === "signed-out" ? <SignInForm /> : null;
  }
  return (
    <>
      <div key={account} className={ended ? styles.veiled : undefined}>
        <Outlet />
      </div>
      <SignInAgain open={ended} />
    </>
  );
}
