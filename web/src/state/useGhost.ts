import { useEffect, useRef, useState } from "react";

/** The value before the last change, for four seconds, so that an eye can see what moved. */
export function useGhost(value: string): string | null {
  const before = useRef(value);
  const [ghost, setGhost] = useState<string | null>(null);
  useEffect(() => {
    if (before.current === value) return;
    setGhost(before.current);
    before.current = value;
    const timer = window.setTimeout(() => setGhost(null), 4000);
    return () => window.clearTimeout(timer);
  }, [value]);
  return ghost;
}
