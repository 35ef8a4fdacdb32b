import { useQueryClient } from "@tanstack/vue-query";
import { defineStore } from "pinia";
import { ref, shallowRef } from "vue";
import { again } from "./again";
import { listen, type Heard } from "./stream";

/** What is known of the server: whether it answers, its day, its revision. */
export const useServer = defineStore("server", () => {
  const queries = useQueryClient();
  const away = ref(false);
  const today = ref("");
  /** The to-dos of what was last undone in this window. */
  const undone = shallowRef<string[]>([]);
  /** The revision up to which everything shown has been asked for again. */
  let revision: number | undefined;
  /** A change has been told of. */
  let told = false;
  /** The server's wall clock when it was last asked, and when that was here. */
  let clock: { wall: number; here: number; zone: string } | undefined;

  /** Reads everything shown again, once for each revision. */
  function refresh(to?: number, todos?: string[]) {
    if (to === undefined) again(queries, { queryKey: ["bell"] });
    if (to !== undefined && revision !== undefined && to <= revision) return;
    if (to !== undefined) [revision, told] = [to, true];
    again(queries, { queryKey: ["overview"] });
    again(queries, { queryKey: ["view"] });
    // What a slip shows of other to-dos changes with any of them.
    again(queries, { predicate: (q) => q.queryKey[2] === "inside" });
    if (!todos) again(queries, { queryKey: ["todo"] });
    for (const id of todos ?? []) again(queries, { queryKey: ["todo", id] });
  }

  function heard(e: Heard) {
    if (e.kind === "away" || e.kind === "here") {
      away.value = e.kind === "away";
      return;
    }
    if (e.kind === "moved" || e.rings || e.places || e.kind === "hello" || e.kind === "reset")
      again(queries, { queryKey: ["here"] });
    if (e.kind === "moved") {
      // Only where the person is has changed: rows stay as they are.
      again(queries, { queryKey: ["overview", "places"] });
      again(queries, {
        predicate: (q) => q.queryKey[0] === "view" && String(q.queryKey[1]).includes('"here"'),
      });
      return;
    }
    const otherDay = e.today !== undefined && today.value !== "" && e.today !== today.value;
    if (e.kind === "time" || e.kind === "reset" || otherDay) {
      if (e.today) today.value = e.today;
      revision = e.revision;
      refresh();
    } else if (e.kind === "change" && e.rings && !e.todos && !e.places) {
      // Only rings have changed: all else that is shown stays as it is.
      if (e.revision !== undefined && (revision ?? 0) < e.revision)
        [revision, told] = [e.revision, true];
    } else refresh(e.revision, e.kind === "change" ? e.todos : undefined);
    if (e.rings || e.kind === "hello" || e.kind === "reset") again(queries, { queryKey: ["bell"] });
  }

  /** Takes note of what an answer says of the server. */
  function seen(answer: { revision: number; today: string; now?: string; zone?: string }) {
    today.value = answer.today;
    if (answer.now && answer.zone)
      clock = { wall: Date.parse(`${answer.now}Z`), here: Date.now(), zone: answer.zone };
    // Until the stream tells of a change the oldest answer counts. Later a newer one
    // proves nothing of the others: the event that is on its way does.
    if (revision === undefined || (!told && answer.revision < revision)) revision = answer.revision;
  }

  /** The wall time it is, reckoned on from the server's own. */
  function wall(): { typed: string; zone: string } | undefined {
    if (!clock) return undefined;
    const now = new Date(clock.wall + Date.now() - clock.here);
    return { typed: now.toISOString().slice(0, 16), zone: clock.zone };
  }

  function start() {
    listen(heard, () => revision);
    document.addEventListener("visibilitychange", () => {
      if (document.visibilityState === "visible") refresh();
    });
    window.addEventListener("online", () => refresh());
  }

  return { away, today, undone, refresh, seen, wall, start };
});
