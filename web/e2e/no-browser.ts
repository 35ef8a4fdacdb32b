import "pinia"; // and with it Vue, which would look for more of a browser

/** Stands in for the little of a browser that the page's modules touch while they load. */
const kept = new Map<string, string>();
const storage = {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => void kept.set(key, value),
  removeItem: (key: string) => void kept.delete(key),
};
const locks = {
  request: (_name: string, _options: unknown, held: (lock: object | null) => unknown) =>
    Promise.resolve(void held({})),
};
for (const [name, value] of Object.entries({
  document: { querySelector: () => null },
  navigator: { locks },
  localStorage: storage,
  sessionStorage: storage,
}))
  Object.defineProperty(globalThis, name, { value, configurable: true });

/** Numbers that look random and are the same each time (Park and Miller's generator, 1988). */
export function numbers(seed: number) {
  let state = seed;
  return (n: number) => (state = (state * 48271) % 2147483647) % n;
}
