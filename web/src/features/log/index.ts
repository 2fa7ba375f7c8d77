export { TrainingLog } from "./components/TrainingLog";
export { forgetSources, queuedCount } from "./db";
export { goOffline } from "./offline";
export { LogPage } from "./pages/LogPage";
export { TrainPage } from "./pages/TrainPage";
export { linkSource, ofCoach } from "./source";
