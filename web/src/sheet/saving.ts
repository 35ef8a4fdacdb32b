import type { Ref } from "vue";
import { useRoute, useRouter } from "vue-router";
import { useActions } from "@/server/actions";
import type { FilterNode } from "@/server/client";
import { searchFilter, type Source } from "@/server/queries";
import { precision } from "@/words/dates";
import type { useNarrowing } from "./narrowing";

/** What is seen, or was searched for, as the start of a view of one's own. */
export function useSaving(
  source: Ref<Source>,
  narrowing: ReturnType<typeof useNarrowing>,
  name: Ref<string>,
) {
  const route = useRoute();
  const router = useRouter();
  const actions = useActions();

  function saveWhatISee() {
    const s = source.value;
    void router.push({
      path: "/view/new",
      query: {
        ...(s.kind === "view" && { from: s.view }),
        ...(s.kind === "own" && { own: s.own }),
        filter: JSON.stringify({ filter: seen(s, narrowing.filter.value) }),
        name: [name.value, ...narrowing.narrowed.value.map((n) => n.words)].join(", "),
      },
    });
  }
  async function saveSearch() {
    const q = String(route.query.q ?? "");
    const filter = await actions.attempt(() => searchFilter(q));
    if (filter)
      void router.push({
        path: "/view/new",
        query: { filter: JSON.stringify({ filter }), name: q },
      });
  }
  return { saveWhatISee, saveSearch };
}

/** The filter of a list, a tag, a person or a day, narrowed. */
function seen(s: Source, filter: FilterNode | undefined): FilterNode {
  const mine: FilterNode[] =
    s.kind === "list"
      ? [{ field: "list", op: "any-of", values: [s.list] }]
      : s.kind === "tag"
        ? [{ field: "tag", op: "any-of", values: [s.tag] }]
        : s.kind === "person"
          ? [{ field: "person", op: "any-of", values: [s.person] }]
          : s.kind === "rail" && precision(s.cup) === "day"
            ? [{ any: ["plan", "due"].map((field) => ({ field, op: "on", date: s.cup })) }]
            : [];
  return { all: [...mine, ...(filter?.all ?? [])] };
}
