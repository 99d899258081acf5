import { startAuthentication, startRegistration } from "@simplewebauthn/browser";
import { askAccount, Refused } from "./client";

/** A device on which one is signed in. */
export interface OpenSession {
  id: number;
  user_agent: string;
  ip: string;
  created_at: number;
  is_current: boolean;
}

/** A key on a device that signs in without a password. */
export interface Passkey {
  id: number;
  name: string;
  created_at: number;
  last_used_at: number | null;
}

interface Told<T> {
  data: T;
}

/** Passkeys hang on a server's name: at a bare address, or without HTTPS, no browser makes one. */
export function canHavePasskeys(): boolean {
  const isAddress = /^[\d.]+$|:/.test(window.location.hostname);
  return window.isSecureContext && !isAddress && "PublicKeyCredential" in window;
}

export const sessions = async () => (await askAccount<Told<OpenSession[]>>("auth/sessions")).data;

export const endSessions = async (ids: number[]) => {
  await askAccount("auth/sessions", "DELETE", { sessions: ids });
};

export const passkeys = async () =>
  (await askAccount<Told<Passkey[]>>("account/authenticators")).data;

export async function addPasskey(name: string): Promise<void> {
  const path = "account/authenticators/webauthn";
  const asked = await askAccount<Told<{ creation_options: { publicKey: never } }>>(
    `${path}?passwordless`,
  );
  const credential = await startRegistration({
    optionsJSON: asked.data.creation_options.publicKey,
  });
  await askAccount(path, "POST", { name, credential });
}

export const dropPasskey = async (id: number) => {
  await askAccount("account/authenticators/webauthn", "DELETE", { authenticators: [id] });
};

export async function signInByPasskey(): Promise<void> {
  const path = "auth/webauthn/login";
  const asked = await askAccount<Told<{ request_options: { publicKey: never } }>>(path);
  const credential = await startAuthentication({
    optionsJSON: asked.data.request_options.publicKey,
  });
  await askAccount(path, "POST", { credential });
}

export const changePassword = async (current: string, next: string) => {
  await askAccount("account/password/change", "POST", {
    current_password: current,
    new_password: next,
  });
};

export const askNewPassword = async (email: string) => {
  await askAccount("auth/password/request", "POST", { email });
};

export const setNewPassword = async (key: string, password: string) => {
  try {
    await askAccount("auth/password/reset", "POST", { key, password });
  } catch (answer) {
    // 401 is this address's way to say "set; now sign in with it"
    if (!(answer instanceof Refused) || answer.status !== 401) throw answer;
  }
};
