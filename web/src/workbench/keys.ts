/** The keys of the workbench: one table that both the page and its key sheet read. */
export interface KeyAction {
  /** As `event.key` names it; several do the same. */
  keys: string[];
  /** As the key sheet shows it. */
  shown: string;
  what: string;
  run: (key: string) => void;
}

/** The action for a key press, unless it is typed into a field or belongs to the browser. */
export function actionFor(actions: KeyAction[], event: KeyboardEvent): KeyAction | undefined {
  if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return undefined;
  return actions.find((action) => action.keys.includes(event.key));
}

function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName);
}
