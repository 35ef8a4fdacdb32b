import { computed, ref, toValue, watch, type MaybeRefOrGetter } from "vue";
import { useRoute, useRouter } from "vue-router";
import { type Attachment, Away, client, send } from "@/server/client";
import { own } from "@/server/account";
import { fieldWords } from "@/words/fields";
import { useActions } from "@/server/actions";
import { useCarried } from "./carried";
import { useServer } from "@/server/server";

/** What a to-do gets besides its title where it is put in. */
export interface Into {
  list?: string | null;
  section?: string;
  plan?: string;
  /** The to-do it becomes a subtask of. */
  parent?: string;
  /** The sibling it stands behind. */
  after?: string;
}

/** When and where a sentence was typed that is read later. */
type Typed = { typed: string; zone: string };

/**
 * A line that puts to-dos in. A sentence kept while the server was away is read
 * as of the moment it was typed. Its text outlives a reload, is cleared as soon
 * as Enter is pressed, and comes back with the reason when it is refused.
 */
export function useCapture(line: MaybeRefOrGetter<string>, into: MaybeRefOrGetter<Into> = {}) {
  const actions = useActions();
  const router = useRouter();
  const route = useRoute();
  const server = useServer();
  const storedAs = () => own(`line-${toValue(line)}`);
  const kept = ref(sessionStorage.getItem(storedAs()) ?? "");
  const reason = ref("");
  const carried = useCarried(storedAs);
  /** What was put in behind a sibling, for the next one to stand behind it. */
  const lastPut = ref<string>();
  /** What waits for the server, with its key, so that it goes in once. */
  let waiting:
    | { said: string; key: string; open: boolean; typed?: Typed; there: Into; files: string }
    | undefined;
  const hashes = (files: Attachment[]) => files.map((f) => f.hash).join();

  const text = computed({
    get: () => kept.value,
    set(value) {
      kept.value = value;
      reason.value = "";
      sessionStorage.setItem(storedAs(), value);
    },
  });

  /**
   * Puts in what is typed, or what `meant` makes of it; where that is nothing, the words
   * come back. The line is free for the next one at once.
   */
  async function putIn(open: boolean, meant?: (typed: string) => Promise<string | undefined>) {
    let said = text.value;
    if (said.trim() === "") return;
    const first = {
      key: crypto.randomUUID(),
      typed: server.wall(),
      there: { ...toValue(into) },
    };
    let again = waiting?.said === said ? waiting : undefined;
    waiting = undefined;
    text.value = "";
    let files: Attachment[] = [];
    // What was typed meanwhile is not lost either.
    const giveBack = () => {
      const meanwhile = text.value !== "";
      text.value = meanwhile ? `${said} ${text.value}` : said;
      carried.giveBack(files);
      return meanwhile;
    };
    try {
      files = await carried.take();
      const sentence = meant ? await meant(said) : said;
      if (sentence === undefined) return void giveBack();
      said = sentence;
      if (again?.files !== hashes(files)) again = undefined;
      // One key and one moment: whichever try arrives counts once.
      Object.assign(first, again);
      const made = await send(
        (header) =>
          client.POST("/api/sentence/todos", {
            params: { header },
            body: {
              text: said,
              ...first.there,
              ...first.typed,
              ...(files.length && { files: files.map(({ name, hash }) => ({ name, hash })) }),
            },
          }),
        first.key,
      );
      actions.took(made, false, again && ` ${fieldWords(made, server.today)}`);
      if (first.there.after) lastPut.value = made.id;
      if (open) await router.push({ ...route, query: { ...route.query, slip: made.id } });
    } catch (e) {
      const meanwhile = giveBack();
      if (e instanceof Away) {
        waiting = {
          ...first,
          ...(meanwhile && { key: crypto.randomUUID(), typed: server.wall() }),
          said: text.value,
          open,
          files: hashes(carried.files.value),
        };
        reason.value =
          "The server is away. Your words stay here, to be read as of now, and go in when it is back.";
      } else reason.value = e instanceof Error ? e.message : "It could not be put in.";
    }
  }

  /** Adds files to what is typed; one that cannot be kept is said why. */
  async function addFiles(some: Iterable<File>) {
    try {
      await carried.add(some);
    } catch (e) {
      reason.value = e instanceof Error ? e.message : "The file could not be kept.";
    }
  }

  watch(
    () => server.away,
    (away) => {
      if (!away && waiting && waiting.said === text.value) void putIn(waiting.open);
    },
  );

  return { text, reason, putIn, lastPut, files: carried.files, addFiles };
}
