/**
 * The account whose page this is, as the server wrote it into it; "" where the page comes
 * from the development server, which knows none.
 */
export const account = (() => {
  const said = document.querySelector<HTMLMetaElement>('meta[name="account"]')?.content ?? "";
  return said.startsWith("__") ? "" : said;
})();

/** A name in the browser's storage, locks and channels that is this account's alone. */
export const own = (name: string) => (account ? `tincup-${account}-${name}` : `tincup-${name}`);

/** What was kept before there were accounts is the first one's that comes. */
function adopt(storage: Storage) {
  const owned = /^tincup-[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}-/;
  for (const before of Object.keys(storage)) {
    const value = storage.getItem(before);
    if (value === null || !before.startsWith("tincup-") || owned.test(before)) continue;
    const now = own(before.slice("tincup-".length));
    if (storage.getItem(now) === null) storage.setItem(now, value);
    storage.removeItem(before);
  }
}
if (account) for (const storage of [localStorage, sessionStorage]) adopt(storage);
