import { own } from "./account";

/**
 * The name of this window, for undo. It outlives a reload; a duplicated window
 * copies the session storage and therefore takes a name of its own.
 */
const storedAs = own("window");

function claim(name: string): Promise<boolean> {
  return new Promise((resolve) => {
    void navigator.locks.request(own(`window-${name}`), { ifAvailable: true }, (lock) => {
      resolve(lock !== null);
      // Held for as long as the window lives.
      return lock === null ? undefined : new Promise<void>(() => {});
    });
  });
}

async function choose(): Promise<string> {
  const kept = sessionStorage.getItem(storedAs);
  if (kept && (await claim(kept))) return kept;
  const fresh = crypto.randomUUID();
  sessionStorage.setItem(storedAs, fresh);
  await claim(fresh);
  return fresh;
}

export const windowId: Promise<string> = choose();
