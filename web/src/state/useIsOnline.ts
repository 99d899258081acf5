import { useSyncExternalStore } from "react";
import { isAsLastTold, onAsLastTold } from "./asLastTold";

function watch(told: () => void) {
  window.addEventListener("online", told);
  window.addEventListener("offline", told);
  const stop = onAsLastTold(told);
  return () => {
    stop();
    window.removeEventListener("online", told);
    window.removeEventListener("offline", told);
  };
}

/** Whether this device has a network, and the last answer came over it. */
export function useIsOnline(): boolean {
  return useSyncExternalStore(watch, () => navigator.onLine && !isAsLastTold());
}
