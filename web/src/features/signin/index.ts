export { useSession, useSignOut } from "./api";
export { OwnerForm } from "./components/OwnerForm";
export { SignInForm } from "./components/SignInForm";
