<script setup lang="ts">
import { useMediaQuery } from "@vueuse/core";
import { computed, provide, ref, useTemplateRef, watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import { Away, Refused } from "@/server/client";
import SentenceLine from "@/capture/SentenceLine.vue";
import BulkBar from "./BulkBar.vue";
import ColumnsSheet from "./ColumnsSheet.vue";
import ComesRound from "./ComesRound.vue";
import DueLists from "./DueLists.vue";
import GroupHead from "./GroupHead.vue";
import GroupRows from "./GroupRows.vue";
import PastChart from "./PastChart.vue";
import NarrowBar from "./NarrowBar.vue";
import PersonCard from "./PersonCard.vue";
import SearchHead from "./SearchHead.vue";
import SheetHead from "./SheetHead.vue";
import SheetState from "@/kit/SheetState.vue";
import { sheetKey, useArrange } from "./arrange";
import { useCurrent } from "@/state/current";
import { useColumns } from "./columns";
import { useKeys } from "@/state/keys";
import { useMakeRoom } from "./making-room";
import { printSheet } from "@/kit/printing";
import { groupKey, pageSize } from "@/server/queries";
import { useReadRows } from "./read-rows";
import { useRowKeys } from "./row-keys";
import { useSaving } from "./saving";
import { useSelection } from "@/kit/selection";
import { useSheet } from "./sheet";
import { useSheetLine } from "./sheet-line";
import { useToasts } from "@/kit/toasts";
import { foldsAway, rowsOf, useShown, type ShownGroup } from "./shown";
import { useNoticing } from "@/server/here";
import { emptyWords } from "@/words/empty";
import { whyNot } from "@/words/keys";
import { noticingWords } from "@/words/places";
import { listById } from "@/words/names";

const route = useRoute();
const router = useRouter();
const current = useCurrent();
const selection = useSelection();
const noticing = useNoticing();
const toasts = useToasts();
const { source, narrowing, months, wanted, query, displayed, name, overview } = useSheet();
const { shape } = narrowing;

const view = query.view;
const at = computed(() => {
  const s = source.value;
  return {
    list: s.kind === "list" ? listById(overview.value, s.list)?.list : undefined,
    shelf: s.kind === "shelf" ? overview.value?.shelves.find((o) => o.id === s.shelf) : undefined,
    tag: s.kind === "tag" ? overview.value?.tags.find((t) => t.id === s.tag) : undefined,
    own: s.kind === "own" ? overview.value?.views.find((v) => v.id === s.own) : undefined,
    person: s.kind === "person" ? overview.value?.people.find((p) => p.id === s.person) : undefined,
  };
});
const viewName = computed(() =>
  source.value.kind === "view" ? source.value.view : source.value.kind,
);
const upcoming = computed(() => viewName.value === "upcoming");
/** Not one open to-do: the next thing to do is to put one in. */
const nothingAtAll = computed(
  () =>
    (viewName.value === "today" || viewName.value === "cup") &&
    overview.value !== undefined &&
    overview.value.rail.every((c) => c.count === 0) &&
    Object.values(overview.value.counts).every((n) => n === 0),
);
const narrow = useMediaQuery("(max-width: 760px)");
const byTouch = useMediaQuery("(hover: none)");
const empty = computed(() => view.value && displayed.value.length === 0);
const total = computed(() => {
  const n = (view.value?.groups ?? [])
    .filter((g) => g.kind !== "ticked")
    .reduce((sum, g) => sum + g.count - (g.notes ?? 0), 0);
  const what = { done: "in all", bin: "in the bin", projects: "in all" }[viewName.value] ?? "to do";
  const lists = (view.value?.groups ?? []).reduce((sum, g) => sum + (g.lists?.length ?? 0), 0);
  const beside = lists ? `${lists} ${lists === 1 ? "list" : "lists"}` : "";
  return [n ? `${n} ${what}` : "", beside].filter(Boolean).join(", ");
});

const unfolded = ref(new Set<string>());
function fold(kind: string) {
  if (!unfolded.value.delete(kind)) unfolded.value.add(kind);
}
const shown = useShown(displayed, unfolded);
const grouped = computed(() =>
  shape.value === "two-by-two" ? "two-by-two" : (shown.value[0]?.kind ?? narrowing.by.value ?? ""),
);
const board = useColumns(shown, grouped, overview);
const rows = computed(() => rowsOf(shape.value === "rows" ? shown.value : board.columns.value));
/** The events of the day that the sheet is of. */
const events = computed(() => {
  const words = view.value?.events;
  const day = typeof route.params.cup === "string" ? route.params.cup : view.value?.today;
  return words && day ? { day, words } : undefined;
});
const slip = computed(() => route.query.slip as string | undefined);
const openSlip = (id: string) =>
  void router.replace({ ...route, query: { ...route.query, slip: id } });

/** Lists and the Cup keep an order of their own, where nobody chose another. */
const arranges = computed(
  () => (at.value.list && !at.value.list.archived) || viewName.value === "cup",
);
const arrange = useArrange(
  shown,
  computed(() => Boolean(arranges.value)),
);
provide(sheetKey, { rows, openSlip, moves: arrange });
const { idsOf, readAll } = useReadRows(source, narrowing, query, wanted, shown);

const makesRoom = computed(() => ["today", "overdue"].includes(viewName.value));
const makeRoom = useMakeRoom(name, () => (makesRoom.value && view.value?.total) || 0, idsOf);
function refuseMove() {
  toasts.show({ text: whyNot.columns });
  return true;
}
function refuseAdding(_: string, inside: boolean) {
  toasts.show({
    text: inside
      ? "A card has no room for a subtask’s line: Enter opens its slip, which has."
      : "Nothing is put in between cards: n puts something in.",
  });
  return true;
}
const { walkMinutes } = useRowKeys(rows, openSlip, () =>
  shape.value === "rows"
    ? { ...arrange, makeRoom }
    : {
        ...arrange,
        indent: refuseMove,
        lift: refuseMove,
        step: refuseMove,
        adds: refuseAdding,
        makeRoom,
        beside: board.beside,
        side: board.side,
      },
);
const narrows = computed(
  () => !["bin", "search"].includes(viewName.value) && !at.value.list?.template,
);
const narrowBar = useTemplateRef("narrowBar");
useKeys((press) => {
  if (press !== "f") return false;
  if (!narrowBar.value) toasts.show({ text: whyNot.noNarrow });
  const at = document.querySelector<HTMLElement>("[data-narrow]");
  if (at) narrowBar.value?.open(at);
  return true;
});

const { saveWhatISee, saveSearch } = useSaving(source, narrowing, name);
async function chooseAll(group: ShownGroup) {
  selection.add(await idsOf(group.start, group.count));
}

/** How many of what was found can be acted on: the bin, which stands last, cannot. */
const alive = computed(() =>
  (view.value?.groups ?? []).filter((g) => g.kind !== "found-bin").reduce((n, g) => n + g.count, 0),
);
/** All that the sheet holds, what is not read yet among it. */
async function chooseWhole() {
  selection.add(await idsOf(0, alive.value));
}
useKeys((press) => {
  if (!/^Ctrl\+a$/i.test(press) || !selection.active) return false;
  void chooseWhole();
  return true;
});
/** What a search is refused for, while it is typed. */
const refusal = computed(() =>
  source.value.kind === "search" && query.error.value instanceof Refused
    ? query.error.value.message
    : undefined,
);

/** Which rows each group shows, so that their pages are read. */
const looks = new Map<string, [number, number]>();
function look(group: ShownGroup, from: number, to: number) {
  looks.set(group.key, [group.start + from, group.start + to]);
  const pages = new Set<number>();
  for (const [first, last] of looks.values())
    for (let n = Math.floor(first / pageSize); n <= Math.floor(last / pageSize); n++) pages.add(n);
  const next = [...pages].sort((a, b) => a - b);
  if (String(next) !== String(wanted.value)) wanted.value = next;
}
watch(
  () => route.path,
  () => {
    unfolded.value.clear();
    selection.clear();
    looks.clear();
  },
);

const { line, sectionGiven, leaveLine } = useSheetLine(source, at, name, view);
/** In a checklist what is put in stands under what is open, and above what is ticked. */
const tickedFrom = computed(() =>
  shape.value === "rows" && at.value.list?.checklist
    ? shown.value.find((g) => g.kind === "ticked")
    : undefined,
);
const failure = computed(() => {
  const e = query.error.value;
  const gone = e instanceof Refused && e.problem.status === 404; // undone in another window, or here
  if (!e || (view.value && !gone) || refusal.value) return undefined;
  return e instanceof Away
    ? { title: "The server is away", text: "Nothing can be read until it answers again." }
    : { title: "This could not be read", text: e.message };
});
</script>

<template>
  <div class="sheet-frame">
    <div class="sheet-inner">
      <SearchHead
        v-if="source.kind === 'search'"
        :sentence="view?.sentence"
        :refusal="refusal"
        :total="alive"
        @all="chooseWhole"
        @save="saveSearch"
      />
      <SheetHead
        v-else
        :narrowed="narrowing.asked.value.narrow"
        :name="name"
        :sentence="view?.sentence"
        :holds="view?.holds"
        :events="events"
        :total="total"
        :overview="overview"
        v-bind="at"
        :makes-room="makesRoom && Boolean(view?.total)"
        :chooses="rows.length > 0"
        :narrows="narrows"
        :shape="shape"
        :by="narrowing.by.value"
        :narrow="narrow"
        @make-room="makeRoom"
        @narrow="(at) => narrowBar?.open(at)"
        @shape="narrowing.setShape"
        @minutes="walkMinutes"
        @print="(columns) => printSheet(columns, readAll)"
      />
      <PastChart v-if="viewName === 'done' && view?.total" />
      <NarrowBar
        v-if="overview && narrows"
        ref="narrowBar"
        :overview="overview"
        :narrowed="narrowing.narrowed.value"
        @narrow="narrowing.narrow"
        @widen="narrowing.widen"
        @save="saveWhatISee"
      />
      <PersonCard v-if="at.person" :person="at.person" />

      <SheetState v-if="failure" v-bind="failure">
        <button class="btn" @click="query.refetch()">Try again</button>
      </SheetState>
      <template v-else-if="source.kind === 'search' && (!source.q.trim() || refusal || empty)" />
      <div v-else-if="!view || !overview" class="loading" role="status">
        <span class="unseen">Loading</span>
        <div v-for="n in 6" :key="n" class="ghost" :style="{ width: `${62 - n * 6}%` }" />
      </div>
      <SheetState
        v-else-if="empty && (shape === 'rows' || !board.columns.value.length)"
        v-bind="
          view.why
            ? { title: 'Nothing here just now', text: view.why }
            : emptyWords(viewName, byTouch)
        "
      >
        <button v-if="nothingAtAll" class="btn main" @click="current.capture++">
          Put something in
        </button>
        <router-link v-else-if="viewName === 'today'" class="btn" to="/upcoming">
          What comes
        </router-link>
        <template v-else-if="viewName === 'here'">
          <button v-if="!noticing" class="btn main" :title="noticingWords" @click="noticing = true">
            Let this browser notice where I am
          </button>
          <router-link class="btn" to="/places">My places</router-link>
        </template>
      </SheetState>
      <ColumnsSheet
        v-else-if="shape !== 'rows'"
        :columns="board.columns.value"
        :overview="overview"
        :today="view.today"
        :slip="slip"
        :square="shape === 'two-by-two'"
        :takes="board.takes"
        :in-list="at.list?.id"
        @move="board.move"
      />
      <template v-else>
        <template v-for="group in shown" :key="groupKey(group)">
          <SentenceLine
            v-if="line && group === tickedFrom"
            :key="route.path"
            class="here"
            v-bind="line"
            @leave="leaveLine"
            @put="(id) => (current.putIn = id)"
          />
          <section class="group" :data-group="group.kind" :data-horizon="group.horizon">
            <GroupHead
              :group="group"
              :today="view.today"
              :overview="overview"
              :with-cup="upcoming"
              :list="at.list"
              :folds="foldsAway(group.kind)"
              :folded="foldsAway(group.kind) && !unfolded.has(group.kind)"
              @fold="fold(group.kind)"
              @all="chooseAll(group)"
            />
            <DueLists v-if="group.lists" :lists="group.lists" :today="view.today" />
            <GroupRows
              :group="group"
              :overview="overview"
              :today="view.today"
              :in-list="at.list?.id"
              :slip="slip"
              :arranges="Boolean(arranges)"
              @look="(from, to) => look(group, from, to)"
            />
            <SentenceLine
              v-if="line && group.of && current.adding?.row === group.of && at.list"
              :key="group.of"
              class="here"
              v-bind="line"
              :line="`${route.path}#${group.of}`"
              :label="`Put into ${group.name ?? name}`"
              :placeholder="`Put into ${group.name ?? name}`"
              :given="[...line.given, sectionGiven(group)]"
              now
              @leave="leaveLine"
              @left="current.adding = undefined"
              @put="(id) => (current.putIn = id)"
            />
            <ComesRound v-if="group.comesRound" :todos="group.comesRound" @open="openSlip" />
          </section>
        </template>
      </template>

      <SentenceLine
        v-if="line && view && overview && !tickedFrom"
        :key="route.path"
        class="here"
        v-bind="line"
        @leave="leaveLine"
        @put="(id) => (current.putIn = id)"
      />
      <p v-if="upcoming && view && view.beyond > 0" class="beyond">
        {{ view.beyond }} more {{ view.beyond === 1 ? "lies" : "lie" }} further ahead.
        <button v-if="months < 12" class="btn" @click="months = Math.min(months + 3, 12)">
          Show three more months
        </button>
      </p>
    </div>
    <BulkBar
      v-if="selection.active"
      :binned="viewName === 'bin'"
      :more="selection.ids.size < alive"
      @all="chooseWhole"
    />
  </div>
</template>

<style scoped>
.sheet-frame {
  --gutter: 30px;
  display: flex;
  flex-direction: column;
  min-height: 100%;
}
.sheet-inner {
  flex: 1;
  padding: 16px 20px 96px var(--gutter);
}
@media (max-width: 760px) {
  .sheet-inner {
    padding-top: 0;
  }
}
.group {
  margin-bottom: 12px;
}
/* A row that is pulled sideways widens nothing. */
.sheet-frame {
  overflow-x: clip;
}
.here {
  margin-top: 8px;
}
.beyond {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
  margin-top: 16px;
  color: var(--pencil);
}
.loading {
  padding-top: 16px;
  animation: appear 0s 250ms both;
}
.ghost {
  height: 12px;
  margin: 14px 0 26px;
  border-radius: var(--corner);
  background: var(--tin);
  opacity: 0.5;
}
@keyframes appear {
  from {
    visibility: hidden;
  }
}
</style>
