import { ErrorBoundary } from "react-error-boundary";
import { TrainPage } from "../features/log/phone";
import { MyPage } from "../features/my";
import { BrokenNote } from "./BrokenNote";
import { PhoneGate } from "./PhoneGate";

// Two addresses: a router would be a tenth of what the phone has to fetch.
const TRAIN = /^\/train\/(?<clientId>[^/]+)\/?$/;

/** The pages that work without a line: a client's own, and a client's session on the coach's phone. */
export function PhoneApp() {
  const clientId = TRAIN.exec(window.location.pathname)?.groups?.clientId;
  return (
    <ErrorBoundary FallbackComponent={BrokenNote}>
      {clientId ? (
        <PhoneGate>
          <TrainPage clientId={decodeURIComponent(clientId)} />
        </PhoneGate>
      ) : (
        <MyPage />
      )}
    </ErrorBoundary>
  );
}
