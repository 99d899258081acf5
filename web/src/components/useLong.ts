import { useEffect, useState } from "react";

const LONG_MS = 1000;

/** Whether something has been so for a second. */
export function useLong(isSo: boolean): boolean {
  const [isLong, setLong] = useState(false);
  useEffect(() => {
    if (!isSo) return;
    const timer = window.setTimeout(() => setLong(true), LONG_MS);
    return () => {
      window.clearTimeout(timer);
      setLong(false);
    };
  }, [isSo]);
  return isSo && isLong;
}
