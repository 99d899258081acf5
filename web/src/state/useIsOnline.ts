import { useSyncExternalStore } from "react";

function watch(told: () => void) {
  window.addEventListener("online", told);
  window.addEventListener("offline", told);
  return () => {
    window.removeEventListener("online", told);
    window.removeEventListener("offline", told);
  };
}

/** Whether this device has a network at all; a server may still not answer. */
export function useIsOnline(): boolean {
  return useSyncExternalStore(watch, () => navigator.onLine);
}
