import { ref, watch } from "vue";
import type { Attachment } from "@/server/client";
import { keep } from "@/server/attach";

/** Files that go with what is put in next; they outlive a reload as its words do. */
export function useCarried(lineStoredAs: () => string) {
  const storedAs = () => `${lineStoredAs()}-files`;
  const files = ref<Attachment[]>(JSON.parse(sessionStorage.getItem(storedAs()) ?? "[]"));
  watch(files, (now) => sessionStorage.setItem(storedAs(), JSON.stringify(now)));
  /** Those that are on their way to the server. */
  let coming: Promise<unknown> = Promise.resolve();

  /** Adds files one after the other; it fails with the first that cannot be kept. */
  function add(some: Iterable<File>): Promise<void> {
    const all = [...some];
    const adding = coming
      .catch(() => undefined)
      .then(async () => {
        for (const file of all) {
          const kept = await keep(file);
          files.value = [...files.value.filter((f) => f.hash !== kept.hash), kept];
        }
      });
    coming = adding;
    // Enter waits for what is under way, and is told of its failure; of an older one it is not.
    adding
      .catch(() => undefined)
      .finally(() => {
        if (coming === adding) coming = Promise.resolve();
      });
    return adding;
  }
  /** Takes all of them, those on their way too. */
  async function take(): Promise<Attachment[]> {
    await coming;
    const all = files.value;
    files.value = [];
    return all;
  }
  const giveBack = (all: Attachment[]) => (files.value = [...all, ...files.value]);
  return { files, add, take, giveBack };
}
