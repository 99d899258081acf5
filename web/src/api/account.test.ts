// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from "vitest";
import { canHavePasskeys, endSessions, sessions, setNewPassword } from "./account";
import { Refused } from "./client";

const asked: Request[] = [];

/** Answer every request the same way, and keep what was asked. */
function answers(status: number, body: unknown) {
  vi.stubGlobal("fetch", (path: string, how: RequestInit) => {
    asked.push(new Request(`http://localhost${path}`, how));
    return Promise.resolve(new Response(JSON.stringify(body), { status }));
  });
}

const refusal = { code: "sign_in", detail: "You are not signed in.", field: "", hint: "Sign in." };

afterEach(() => {
  vi.unstubAllGlobals();
  asked.length = 0;
});

describe("a new password", () => {
  it("is set where the server says to sign in with it", async () => {
    answers(401, refusal);
    await expect(setNewPassword("key", "five-conveyors-stopped")).resolves.toBeUndefined();
    expect(await asked[0]?.json()).toEqual({ key: "key", password: "five-conveyors-stopped" });
  });

  it("is refused where its link does not hold", async () => {
    answers(400, { ...refusal, code: "bad_request", detail: "The link has ended." });
    await expect(setNewPassword("key", "x")).rejects.toThrow("The link has ended.");
  });
});

describe("sessions", () => {
  it("are those that the server tells, and end by their number", async () => {
    const one = { id: 7, user_agent: "x", ip: "10.0.0.1", created_at: 1, is_current: true };
    answers(200, { data: [one] });
    expect(await sessions()).toEqual([one]);
    await endSessions([7]);
    expect(asked[1]?.method).toBe("DELETE");
    expect(await asked[1]?.json()).toEqual({ sessions: [7] });
  });

  it("are told as a lost line when the server is not reached", async () => {
    vi.stubGlobal("fetch", () => Promise.reject(new TypeError("no network")));
    await expect(sessions()).rejects.toBeInstanceOf(Refused);
  });
});

describe("a passkey", () => {
  it("hangs on a name: at a bare address there is none", () => {
    vi.stubGlobal("isSecureContext", true);
    vi.stubGlobal("PublicKeyCredential", class {});
    const at = (hostname: string) => {
      vi.stubGlobal("location", { ...window.location, hostname });
      return canHavePasskeys();
    };
    expect(at("127.0.0.1")).toBe(false);
    expect(at("[::1]")).toBe(false);
    expect(at("coil.example.com")).toBe(true);
    vi.stubGlobal("isSecureContext", false);
    expect(at("coil.example.com")).toBe(false);
  });
});
