import { computed, onScopeDispose, ref, shallowRef, watch } from "vue";
import { useRoute } from "vue-router";
import { patience, unrest } from "@/kit/pointer-rest";
import { askedLately } from "@/server/client";
import { usePlaces } from "@/server/here";
import { useLinger } from "@/server/linger";
import { useNarrowing } from "./narrowing";
import { groupKey, type SheetGroup, type Source, useOverview, useView } from "@/server/queries";
import { listById, viewNames } from "@/words/names";
import { longDay, monthName, precision, shortDay, weekStart, addDays } from "@/words/dates";

/** A quotation mark that is not closed yet is, while one goes on typing. */
const closed = (q: string) => (q.split('"').length % 2 ? q : `${q}"`);

/** Whether a row that is shown would stand elsewhere, or no more. */
function displaces(before: SheetGroup[], now: SheetGroup[]): boolean {
  const ids = (groups: SheetGroup[]) =>
    groups.flatMap((g) => [groupKey(g), ...g.rows.map((r) => r?.todo.id)]);
  const there = ids(now);
  return ids(before).some((id, i) => id && id !== there[i]);
}

/** What the address asks for: its rows, its name, and what is folded. */
export function useSheet() {
  const route = useRoute();
  const linger = useLinger();
  const months = ref(0);
  const { data: overview, error: overviewError, refetch: refetchOverview } = useOverview();

  const source = computed<Source>(() => {
    const { view, list, shelf, cup, tag, person, place, own } = route.params;
    if (route.name === "here") return { kind: "here" };
    if (typeof place === "string") return { kind: "place", place };
    if (route.name === "search") return { kind: "search", q: closed(String(route.query.q ?? "")) };
    if (typeof own === "string") return { kind: "own", own };
    if (typeof list === "string") return { kind: "list", list };
    if (typeof shelf === "string") return { kind: "shelf", shelf };
    if (typeof tag === "string") return { kind: "tag", tag };
    if (typeof person === "string") return { kind: "person", person };
    if (typeof cup === "string") return { kind: "rail", cup };
    return { kind: "view", view: typeof view === "string" ? view : "today", months: months.value };
  });
  const { data: places } = usePlaces();
  const narrowing = useNarrowing(overview);
  const key = computed(() => `${route.path} ${JSON.stringify(narrowing.asked.value)}`);
  watch(key, () => (months.value = 0));

  /** The pages of rows that are looked at. */
  const wanted = ref<number[]>([]);
  watch(key, () => (wanted.value = []));
  const query = useView(source, narrowing.asked, wanted);
  const displayed = shallowRef<SheetGroup[]>([]);
  let shownFor = "";
  /** The question whose answer is displayed, unless that is an old one, read anew just now. */
  let answered: string | undefined;
  let due = Infinity;
  let waiting: ReturnType<typeof setTimeout> | undefined;
  function show() {
    clearTimeout(waiting);
    const before = shownFor === key.value ? displayed.value : [];
    const now = query.view.value ? linger.withKept(query.view.value.groups, before) : [];
    const answers = query.answers.value;
    const same = answers !== undefined && answers === answered;
    if (same && unrest() && !askedLately() && displaces(before, now)) {
      due = Math.min(due, Date.now() + patience);
      const wait = Math.min(unrest(), due - Date.now());
      if (wait > 0) return void (waiting = setTimeout(show, wait));
    }
    due = Infinity;
    shownFor = key.value;
    answered = query.isFetching.value ? undefined : answers;
    displayed.value = now;
  }
  watch([query.view, () => [...linger.kept.keys()], key], show, { immediate: true });
  onScopeDispose(() => clearTimeout(waiting));

  const name = computed(() => {
    const s = source.value;
    const today = overview.value?.today ?? "";
    if (s.kind === "view") return viewNames[s.view] ?? "";
    if (s.kind === "list") return listById(overview.value, s.list)?.list.name ?? "";
    if (s.kind === "tag") return overview.value?.tags.find((t) => t.id === s.tag)?.name ?? "";
    if (s.kind === "shelf")
      return overview.value?.shelves.find((o) => o.id === s.shelf)?.name ?? "";
    if (s.kind === "search") return "Search";
    if (s.kind === "here") return "Here";
    if (s.kind === "place") return places.value?.find((p) => p.id === s.place)?.name ?? "";
    if (s.kind === "own") return overview.value?.views.find((v) => v.id === s.own)?.name ?? "";
    if (s.kind === "person")
      return overview.value?.people.find((p) => p.id === s.person)?.name ?? "";
    switch (precision(s.cup)) {
      case "parked":
        return "Parked";
      case "week": {
        if (!today) return "";
        const first = weekStart(s.cup);
        return `Week of ${shortDay(first, today)} to ${shortDay(addDays(first, 6), today)}`;
      }
      case "month":
        return `${monthName(`${s.cup}-01`)} ${s.cup.slice(0, 4)}`;
      default:
        return today ? longDay(s.cup, today) : "";
    }
  });

  return {
    source,
    narrowing,
    months,
    wanted,
    query,
    displayed,
    name,
    overview,
    overviewError,
    refetchOverview,
  };
}
