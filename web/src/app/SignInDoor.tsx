import { SignInAgain, SignInForm } from "../features/signin";
import { DeskProviders } from "./DeskProviders";

/** The way in with what its fields are made of, for the phone's pages, which do without. */
export default function SignInDoor({ over }: { over: boolean }) {
  return <DeskProviders>{over ? <SignInAgain open /> : <SignInForm />}</DeskProviders>;
}
