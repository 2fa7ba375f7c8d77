import { lazy, Suspense, useRef } from "react";
import { Outlet } from "react-router";
import { useAccount } from "../features/signin/api";
import { METRIC, type Measures, OwnMeasures } from "../shared/format";
import { ErrorNote } from "../shared/ui";
import styles from "./Gate.module.css";

// Whoever is signed in already does not fetch the forms.
const OwnerForm = lazy(async () => ({ default: (await import("../features/signin")).OwnerForm }));
const SignInForm = lazy(async () => ({ default: (await import("../features/signin")).SignInForm }));
const SignInAgain = lazy(async () => ({ default: (await import("../features/signin")).SignInAgain }));

/** Shows the application to whoever is signed in, and the way in to everyone else; over the page when a session ended. */
export function Gate() {
  const { session, account, ended } = useAccount();
  // Theirs stay while a session has ended: nothing that is typed changes its unit.
  const measures = useRef<Measures>(METRIC);
  if (session.data?.standing === "signed-in") measures.current = session.data.measures;
  if (account === undefined) {
    if (session.error) return <ErrorNote error={session.error} onRetry={() => session.refetch()} />;
    return (
      <Suspense>
        {session.data?.standing === "new" && <OwnerForm asksForCode={session.data.asks_for_code} />}
        {session.data?.standing === "signed-out" && <SignInForm />}
      </Suspense>
    );
  }
  return (
    <>
      <OwnMeasures value={measures.current}>
        <div key={account} className={ended ? styles.veiled : undefined}>
          <Outlet />
        </div>
      </OwnMeasures>
      <Suspense>{ended && <SignInAgain open />}</Suspense>
    </>
  );
}
