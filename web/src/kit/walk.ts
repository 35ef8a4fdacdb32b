/** Moves the focus among the buttons of the element that heard the key. */
export function walk(e: KeyboardEvent, by: number) {
  const buttons = [...(e.currentTarget as HTMLElement).querySelectorAll<HTMLElement>("button")];
  const i = buttons.indexOf(document.activeElement as HTMLElement);
  buttons[(i + by + buttons.length) % buttons.length]?.focus();
}
