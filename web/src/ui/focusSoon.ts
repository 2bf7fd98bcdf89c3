const AGAIN_MS = 100;
const TRIES = 40;

/** Puts the focus where the hand was, once the page has drawn what it points at; and once more where
 * what had it goes away with the next answer. Whoever moves the focus meanwhile keeps it. */
export function focusSoon(...selectors: string[]): void {
  let given: HTMLElement | null = null;
  let left = TRIES;
  const give = () => {
    const now = document.activeElement;
    const lost = now === null || now === document.body || !now.isConnected;
    if (given === null || lost) {
      for (const selector of selectors) {
        const target = document.querySelector<HTMLElement>(selector);
        if (!target) continue;
        target.focus();
        target.scrollIntoView({ block: "nearest" });
        given = target;
        break;
      }
    } else if (now !== given) return;
    left -= 1;
    if (left > 0) setTimeout(give, AGAIN_MS);
  };
  requestAnimationFrame(() => setTimeout(give));
}
