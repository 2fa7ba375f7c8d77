// What the phone's pages take of the log; the desk's page is not among it.
export { TrainingLog } from "./components/TrainingLog";
export { forgetSources, queuedCount } from "./db";
export { goOffline } from "./offline";
export { TrainPage } from "./pages/TrainPage";
export { linkSource } from "./source";
