export { useAccount, useSession, useSignOut } from "./api";
export { OwnerForm } from "./components/OwnerForm";
export { SignInAgain, SignInForm } from "./components/SignInForm";
