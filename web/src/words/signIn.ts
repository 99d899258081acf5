/** Words of the signIn screen. */
import type { Shown } from "./shown";

export const signInWords = {
  signEvenCoil: "Sign in · Even Coil",
  evenCoil: "Even Coil",
  oneMotorFrom:
    "One motor, from its nameplate to a starter that is wired, proven and signed off. Every figure shows where it comes from.",
  sign: "Sign in",
  byPasskey: "Sign in with a passkey",
  lostPassword: "Lost your password?",
  name: "Name",
  password: "Password",
  signing: "Signing in…",
  madeUpPeople: "Demo: sign in as",
  player: (name: Shown, role: Shown) => `${name}, ${role}`,
};
