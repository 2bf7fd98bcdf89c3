import { useEffect, useState } from "react";

/** A value once it has been left alone for a moment, so that typing does not ask at every letter. */
export function useSettled<T>(value: T, delayMs = 350): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), delayMs);
    return () => clearTimeout(timer);
  }, [value, delayMs]);
  return settled;
}
