import { useLayoutEffect, useRef, useState, type RefObject } from "react";

/** Width of an element as it is laid out, `start` until it is known. [px] */
export function useWidth(start: number): [RefObject<HTMLDivElement | null>, number] {
  const frame = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(start);
  useLayoutEffect(() => {
    const element = frame.current;
    if (!element) return;
    const measure = () => setWidth(Math.max(300, Math.round(element.clientWidth)));
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [frame, width];
}
