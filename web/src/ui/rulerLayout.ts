/** Where a ruler's pieces lie: the limit a third along, short to its left, spare to its right. */
export const RULER_LOW = -0.5;
export const RULER_HIGH = 1;

export interface RulerLayout {
  limitX: number;
  bar: { x: number; width: number };
  whisker: { from: number; to: number } | null;
}

export function rulerX(share: number, width: number): number {
  const clipped = Math.min(RULER_HIGH, Math.max(RULER_LOW, share));
  return round(((clipped - RULER_LOW) / (RULER_HIGH - RULER_LOW)) * width);
}

/** Shares as the core gives them; `width` in px. A bar is never thinner than one pixel. */
export function rulerLayout(
  share: number,
  low: number | null,
  high: number | null,
  width: number,
): RulerLayout {
  const limitX = rulerX(0, width);
  const end = rulerX(share, width);
  const whisker =
    low === null || high === null ? null : { from: rulerX(low, width), to: rulerX(high, width) };
  return {
    limitX,
    bar: { x: Math.min(limitX, end), width: Math.max(1, round(Math.abs(end - limitX))) },
    whisker: whisker && whisker.to - whisker.from >= 1 ? whisker : null,
  };
}

function round(value: number): number {
  return Math.round(value * 10) / 10;
}
