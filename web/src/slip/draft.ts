import { computed, onBeforeUnmount, ref, watch, type Ref } from "vue";
import { Away, Refused, type Todo } from "@/server/client";
import { own } from "@/server/account";
import { useActions } from "@/server/actions";
import { useServer } from "@/server/server";
import { saving } from "@/server/turns";

type TextField = "title" | "notes";

/**
 * A text field of a slip. It follows the server until it is typed in; what is
 * typed is saved when it is left, and kept aside until the server has it. Where
 * another window wrote the same field meanwhile, both are shown to choose from.
 */
export function useDraft(todo: Ref<Todo>, field: TextField) {
  const actions = useActions();
  const server = useServer();
  const theirs = computed(() => todo.value[field] ?? "");
  const slot = (id: string) => own(`draft-${id}-${field}`);
  const typed = ref<string | null>(null);
  const state = ref<"" | "saving" | "saved" | "kept">("");
  const reason = ref("");
  const clash = ref<string>();
  /** The state that was read when typing began. */
  let base = todo.value;

  watch(
    () => todo.value.id,
    (id, before) => {
      if (before) void save(before);
      base = todo.value;
      typed.value = null;
      state.value = "";
      reason.value = "";
      clash.value = undefined;
      recall(id);
    },
    { immediate: true },
  );

  const text = computed({
    get: () => typed.value ?? theirs.value,
    set(value) {
      if (typed.value === null) base = todo.value;
      typed.value = value;
      reason.value = "";
      state.value = "";
      const draft = JSON.stringify({ text: value, revision: base.revision });
      sessionStorage.setItem(slot(todo.value.id), draft);
    },
  });

  /** What was typed when the window went away, and the state it was typed on. */
  function recall(id: string) {
    const kept = sessionStorage.getItem(slot(id));
    if (kept === null) return;
    const draft = JSON.parse(kept) as { text: string; revision: number };
    typed.value = draft.text;
    base = { ...todo.value, revision: draft.revision };
    void save();
  }

  function settle(id: string) {
    sessionStorage.removeItem(slot(id));
    if (todo.value.id !== id) return;
    typed.value = null;
    clash.value = undefined;
  }

  async function save(id = todo.value.id, revision = base.revision) {
    const value = typed.value;
    if (value === null || clash.value !== undefined) return;
    if (value === theirs.value && id === todo.value.id) return settle(id);
    state.value = "saving";
    try {
      const sent = actions.patch({ id, revision }, { [field]: value });
      saving(id, sent);
      const changed = await sent;
      actions.took(changed, true);
      // What was typed while it was on its way stays a draft.
      if (todo.value.id === id && typed.value !== value) {
        base = changed;
        return;
      }
      settle(id);
      if (todo.value.id === id) state.value = "saved";
    } catch (e) {
      if (todo.value.id !== id) return actions.trouble(e);
      state.value = "kept";
      if (e instanceof Refused && e.problem.status === 412 && e.problem.current) {
        // A retry after a lost answer meets its own words.
        if (e.problem.current[field] === value) return settle(id);
        clash.value = e.problem.current[field] ?? "";
        base = e.problem.current;
      } else if (e instanceof Away) {
        reason.value = "The server is away. What you typed is kept here.";
      } else reason.value = e instanceof Error ? e.message : "It could not be saved.";
    }
  }

  /** After a clash: the person's own words, or the other window's. */
  function keepMine() {
    clash.value = undefined;
    void save();
  }
  function takeTheirs() {
    settle(todo.value.id);
    state.value = "";
  }

  // What could not be saved goes in when the server is back.
  watch(
    () => server.away,
    (away) => {
      if (!away && state.value === "kept") void save();
    },
  );

  const leaving = () => void save();
  window.addEventListener("pagehide", leaving);
  onBeforeUnmount(() => {
    window.removeEventListener("pagehide", leaving);
    void save();
  });

  return {
    text,
    state,
    reason,
    clash,
    save,
    keepMine,
    takeTheirs,
    dirty: computed(() => typed.value !== null),
  };
}
