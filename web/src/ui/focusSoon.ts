/** Puts the focus where the hand was, once the page has drawn what it points at. */
export function focusSoon(...selectors: string[]): void {
  requestAnimationFrame(() => {
    setTimeout(() => {
      for (const selector of selectors) {
        const target = document.querySelector<HTMLElement>(selector);
        if (!target) continue;
        target.focus();
        target.scrollIntoView({ block: "nearest" });
        return;
      }
    });
  });
}
