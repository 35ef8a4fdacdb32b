import { useIntervalFn } from "@vueuse/core";
import { computed, type Ref, ref, watch } from "vue";
import { own } from "@/server/account";
import type { Group, Row } from "@/server/client";
import type { Act, StepKind, Walk } from "@/words/review";

/** What was decided of one to-do, and how it stood then. */
interface Decision {
  act: Act;
  revision: number;
  /** How it stood once that was kept; it comes back where it changes after that. */
  kept?: number;
  /** It has left the steps since. */
  gone?: boolean;
}
/** How far a walk has come. It is kept in this browser until the walk is finished. */
interface Progress {
  begun: string;
  seconds: number;
  /** How many there were at most in each step. */
  most: Record<string, number>;
  decided: Record<string, Decision>;
  step?: StepKind;
}

/** How often the time that a walk takes is counted, in seconds. */
const tick = 5;

/** How far a walk has come: what is decided, at which step it is, and how long it has taken. */
export function useProgress(walk: Ref<Walk | undefined>, today: Ref<string>) {
  const storedAs = () => own(`review-${walk.value}`);
  const progress = ref<Progress>(blank());
  function blank(): Progress {
    return { begun: "", seconds: 0, most: {}, decided: {} };
  }
  function read() {
    progress.value = blank();
    if (!walk.value) return;
    try {
      const kept = JSON.parse(localStorage.getItem(storedAs()) ?? "null") as Progress | null;
      if (kept) progress.value = { ...blank(), ...kept };
    } catch {
      // written by something else
    }
  }
  watch(walk, read, { immediate: true });
  watch(
    progress,
    (p) => {
      if (walk.value && Object.keys(p.decided).length)
        localStorage.setItem(storedAs(), JSON.stringify(p));
    },
    { deep: true },
  );
  useIntervalFn(() => {
    if (walk.value && document.visibilityState === "visible") progress.value.seconds += tick;
  }, tick * 1000);

  const settled = (id: string) => id in progress.value.decided;
  function settle(row: Row, act: Act) {
    const { id, revision } = row.todo;
    progress.value.begun ||= today.value;
    progress.value.decided[id] = { act, revision };
  }
  /** It was not kept after all, or was undone: it is asked about again. */
  function reopen(id: string) {
    delete progress.value.decided[id];
  }
  /** Looks at how what was decided stands now: what changed once more was undone. */
  function follow(groups: Group[], whole: boolean) {
    const there = new Map(groups.flatMap((g) => g.rows.map((r) => [r.todo.id, r.todo.revision])));
    for (const [id, d] of Object.entries(progress.value.decided)) {
      const revision = there.get(id);
      if (revision === undefined) {
        if (whole) d.gone = true;
      } else if (revision <= d.revision) continue;
      else if (d.gone || (d.kept !== undefined && revision > d.kept)) reopen(id);
      else d.kept = revision;
    }
    for (const g of groups)
      progress.value.most[g.kind] = Math.max(progress.value.most[g.kind] ?? 0, g.count);
  }
  function forget() {
    localStorage.removeItem(storedAs());
    progress.value = blank();
  }
  const acts = computed(() => Object.values(progress.value.decided).map((d) => d.act));
  const resumed = computed(
    () => acts.value.length > 0 && progress.value.begun !== today.value && progress.value.begun,
  );
  return { progress, settled, settle, reopen, follow, forget, acts, resumed };
}
