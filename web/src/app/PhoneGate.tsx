import { Outlet } from "react-router";
import { SignInAgain, SignInForm, useAccount } from "../features/signin";
import { problemOf } from "../shared/api/client";
import { account as lastAccount } from "../shared/save";
import { ErrorNote } from "../shared/ui";
import styles from "./Gate.module.css";

/** The way to the log on a coach's phone: without a line it shows what the phone keeps of the last who used it; signed out it asks. */
export function PhoneGate() {
  const { session, account, ended } = useAccount();
  if (session.error && problemOf(session.error)) return <ErrorNote error={session.error} />;
  if (session.isPending) return null;
  if (account === undefined && session.data) return <SignInForm />;
  return (
    <>
      <div key={account ?? lastAccount()} className={ended ? styles.veiled : undefined}>
        <Outlet />
      </div>
      <SignInAgain open={ended} />
    </>
  );
}
