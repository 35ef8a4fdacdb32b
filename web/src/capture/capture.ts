import { computed, ref, toValue, watch, type MaybeRefOrGetter } from "vue";
import { useRoute, useRouter } from "vue-router";
import { type Attachment, Away, client, type Given, type Overview, send } from "@/server/client";
import { own } from "@/server/account";
import { fieldWords, whereWords } from "@/words/fields";
import { useActions } from "@/server/actions";
import { rowElement, useCurrent } from "@/state/current";
import { useQueryClient } from "@tanstack/vue-query";
import { useCarried } from "./carried";
import { useServer } from "@/server/server";
import { useToasts } from "@/kit/toasts";

/** What a to-do gets besides its title where it is put in. */
export interface Into {
  list?: string | null;
  section?: string;
  /** Values that the sheet gives, each unless the sentence says its own. */
  given?: Pick<Given, "field" | "value">[];
  /** The to-do it becomes a subtask of. */
  parent?: string;
  /** The sibling it stands behind. */
  after?: string;
}

/** Under what the sentence that was put in last is kept. */
const lastSaid = "last-sentence";

/** How a line is put in: as it is read, opened then, or with nothing read in it. */
export type How = "plain" | "open" | "exact";

/** Where a to-do that was put in went: always said, or where its row does not come into sight. */
export type Says = "where" | "where it is not seen" | "nothing more";

/** How long the row of what was put in is looked for before it is said where it went, in ms. */
const untilSeen = 600;
const lookEvery = 50;

async function seen(id: string): Promise<boolean> {
  for (let waited = 0; waited < untilSeen; waited += lookEvery) {
    if (rowElement(id)) return true;
    await new Promise((go) => setTimeout(go, lookEvery));
  }
  return false;
}

/** When and where a sentence was typed that is read later. */
type Typed = { typed: string; zone: string };

/**
 * A line that puts to-dos in. A sentence kept while the server was away is read
 * as of the moment it was typed. Its text outlives a reload, is cleared as soon
 * as Enter is pressed, and comes back with the reason when it is refused.
 */
export function useCapture(
  line: MaybeRefOrGetter<string>,
  into: MaybeRefOrGetter<Into> = {},
  says: Says = "where it is not seen",
) {
  const actions = useActions();
  const router = useRouter();
  const route = useRoute();
  const server = useServer();
  const queries = useQueryClient();
  const toasts = useToasts();
  const current = useCurrent();
  const storedAs = () => own(`line-${toValue(line)}`);
  const kept = ref(sessionStorage.getItem(storedAs()) ?? "");
  const reason = ref("");
  const carried = useCarried(storedAs);
  /** What waits for the server, with its key, so that it goes in once. */
  let waiting:
    { said: string; key: string; how: How; typed?: Typed; there: Into; files: string } | undefined;
  const hashes = (files: Attachment[]) => files.map((f) => f.hash).join();

  const text = computed({
    get: () => kept.value,
    set(value) {
      kept.value = value;
      reason.value = "";
      sessionStorage.setItem(storedAs(), value);
    },
  });

  /** Brings the sentence that was put in last back into the line, to be mended. */
  function back() {
    const last = sessionStorage.getItem(own(lastSaid));
    if (last && text.value === "") text.value = last;
  }

  /**
   * Puts in what is typed, or what `meant` makes of it; where that is nothing, the words
   * come back. The line is free for the next one at once. It returns what was made.
   */
  async function putIn(how: How, meant?: (typed: string) => Promise<string | undefined>) {
    let said = text.value;
    if (said.trim() === "") return undefined;
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
      if (sentence === undefined) {
        giveBack();
        return undefined;
      }
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
              ...(how === "exact" && { exact: true }),
              ...(files.length && { files: files.map(({ name, hash }) => ({ name, hash })) }),
            },
          }),
        first.key,
      );
      sessionStorage.setItem(own(lastSaid), said);
      if (how === "open") {
        current.opening = made.id;
        await router.push({ ...route, query: { ...route.query, slip: made.id } });
      }
      const where = () =>
        `. ${whereWords(made, queries.getQueryData<Overview>(["overview"]), server.today)}`;
      const late = again ? fieldWords(made, server.today) : "";
      const told = actions.took(
        made,
        false,
        (says === "where" ? where() : "") + (late && `. ${late}`),
      );
      if (says === "where it is not seen")
        void seen(made.id).then((is) => is || told === undefined || toasts.add(told, where()));
      return made;
    } catch (e) {
      const meanwhile = giveBack();
      if (e instanceof Away) {
        waiting = {
          ...first,
          ...(meanwhile && { key: crypto.randomUUID(), typed: server.wall() }),
          said: text.value,
          how,
          files: hashes(carried.files.value),
        };
        reason.value =
          "The server is away. Your words stay here, to be read as of now, and go in when it is back.";
      } else reason.value = e instanceof Error ? e.message : "It could not be put in.";
      return undefined;
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
      if (!away && waiting && waiting.said === text.value) void putIn(waiting.how);
    },
  );

  return { text, reason, putIn, back, files: carried.files, addFiles };
}
