import { lazy, type ReactNode, Suspense } from "react";
import { useAccount } from "../features/signin/api";
import { problemOf } from "../shared/api/client";
import { account as lastAccount } from "../shared/save";
import { ErrorNote } from "../shared/ui";
import styles from "./Gate.module.css";

// Only where somebody has to sign in, which needs a line anyway.
const SignInDoor = lazy(() => import("./SignInDoor"));

/** The way to the log on a coach's phone: without a line it shows what the phone keeps of the last who used it; signed out it asks. */
export function PhoneGate({ children }: { children: ReactNode }) {
  const { session, account, ended } = useAccount();
  if (session.error && problemOf(session.error)) return <ErrorNote error={session.error} />;
  if (session.isPending) return null;
  const stranger = account === undefined && session.data !== undefined;
  return (
    <>
      {!stranger && (
        <div key={account ?? lastAccount()} className={ended ? styles.veiled : undefined}>
          {children}
        </div>
      )}
      {(stranger || ended) && (
        <Suspense>
          <SignInDoor over={ended} />
        </Suspense>
      )}
    </>
  );
}
