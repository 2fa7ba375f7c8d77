export { OwnerForm } from "./components/OwnerForm";
export { SignInAgain, SignInForm } from "./components/SignInForm";
