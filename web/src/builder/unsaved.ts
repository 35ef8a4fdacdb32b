import { onBeforeUnmount, type Ref, watch } from "vue";
import { own } from "@/server/account";

/**
 * Keeps what is being built in this window until it is saved or given up, under
 * the address it is built at. Returns what was left there, if anything was.
 */
export function useUnsaved<T>(address: () => string, ready: Ref<boolean>, state: () => T) {
  const storedAs = () => own(`building ${address()}`);
  let first = "";
  const stop = watch([ready, () => JSON.stringify(state())], ([is, now]) => {
    if (!is) first = "";
    else if (!first)
      first = now; // as it was opened, which is not kept
    else if (now !== first) sessionStorage.setItem(storedAs(), now);
  });
  onBeforeUnmount(stop);

  function left(): T | undefined {
    const text = sessionStorage.getItem(storedAs());
    try {
      return text ? (JSON.parse(text) as T) : undefined;
    } catch {
      return undefined; // written by something else
    }
  }
  const forget = () => sessionStorage.removeItem(storedAs());
  return { left, forget };
}
