/**
 * Something that one window of the browser does, of all that want to. Windows that hold it
 * keep it until they no longer want it or are closed.
 */
export function useRole(name: string) {
  let mine = false;
  let wish: AbortController | undefined;

  /** Says whether this window wants it. */
  function want(wanted: boolean) {
    if (wanted === (wish !== undefined)) return;
    if (!wanted) {
      wish?.abort();
      [wish, mine] = [undefined, false];
      return;
    }
    const asked = new AbortController();
    wish = asked;
    void navigator.locks
      .request(name, { signal: asked.signal }, () => {
        mine = wish === asked;
        return new Promise<void>((end) => asked.signal.addEventListener("abort", () => end()));
      })
      .catch(() => {}); // it was wanted no more before it was given
  }
  return { want, mine: () => mine };
}
