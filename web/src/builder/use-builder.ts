import { computed, onBeforeUnmount, ref, shallowRef, watch } from "vue";
import { ask, Away, client, type Definition, type Meaning } from "@/server/client";
import { type GroupLine, type Line, newGroup, newTest, read, takeOut, write } from "./tree";

/** How long after a change the server is asked again, in milliseconds. */
const pause = 150;

/** A definition that is being built, and what it means so far. */
export function useBuilder() {
  const root = ref<GroupLine>(newGroup("all", newTest()));
  const group = ref("");
  const order = ref<string[]>([]);
  const shape = ref("");
  const urgentDays = ref(3);
  const meaning = shallowRef<Meaning>();
  const fault = ref("");

  const written = computed(() => write(root.value as GroupLine));
  const definition = computed<Definition>(() => ({
    filter: written.value.filter,
    ...(group.value && shape.value !== "two-by-two" && { group: group.value }),
    ...(order.value.length && { order: order.value }),
    ...(shape.value && { shape: shape.value }),
    ...(shape.value === "two-by-two" && { urgentDays: urgentDays.value }),
  }));

  function load(d: Definition) {
    root.value = read(d.filter);
    group.value = d.group ?? "";
    order.value = d.order ?? [];
    shape.value = d.shape ?? "";
    urgentDays.value = d.urgentDays || 3;
  }

  /** The lines that an answer of never or always is to be blamed on. */
  const blamed = shallowRef(new Set<number>());
  /** How many each line lets through by itself, by the line's id. */
  const passes = shallowRef(new Map<number, number>());
  let timer: ReturnType<typeof setTimeout>;
  let asked = 0;
  async function mean() {
    const nth = ++asked;
    const { at } = written.value;
    try {
      const m = await ask(() => client.POST("/api/questions", { body: definition.value }));
      if (nth !== asked) return;
      meaning.value = m;
      fault.value = "";
      blamed.value = new Set(m.because.map((path) => at.get(path)?.id ?? 0));
      passes.value = new Map(
        m.tests.map((t) => {
          const line = at.get(t.path);
          return [line?.id ?? 0, line?.not ? m.looked - t.passes : t.passes];
        }),
      );
      offered = m.offer && at.get(m.offer.path);
    } catch (e) {
      if (nth !== asked) return;
      fault.value =
        e instanceof Away
          ? "The server is away; what this holds cannot be said until it answers."
          : e instanceof Error
            ? e.message
            : "This cannot be read.";
    }
  }
  let offered: Line | undefined;
  watch(
    () => JSON.stringify(definition.value),
    () => {
      clearTimeout(timer);
      timer = setTimeout(() => void mean(), meaning.value ? pause : 0);
    },
    { immediate: true },
  );
  onBeforeUnmount(() => clearTimeout(timer));

  /** Drops the line whose loss would let most more in. */
  function takeOffer() {
    if (offered) takeOut(root.value as GroupLine, offered);
  }

  return {
    root,
    group,
    order,
    shape,
    urgentDays,
    meaning,
    fault,
    blamed,
    passes,
    definition,
    load,
    takeOffer,
    refresh: mean,
  };
}
