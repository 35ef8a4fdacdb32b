<script setup lang="ts">
import { computed, ref, watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import { Away, type Row } from "@/api/client";
import AddHere from "@/components/AddHere.vue";
import ComesRound from "@/components/ComesRound.vue";
import GroupHead from "@/components/GroupHead.vue";
import SheetState from "@/components/SheetState.vue";
import TodoRow from "@/components/TodoRow.vue";
import { useActions } from "@/composables/actions";
import { useCurrent } from "@/composables/current";
import { groupKey } from "@/composables/queries";
import { useRowKeys } from "@/composables/row-keys";
import { useSheet } from "@/composables/sheet";
import { emptyWords } from "@/words/empty";

const route = useRoute();
const router = useRouter();
const actions = useActions();
const current = useCurrent();
const { source, months, query, displayed, name, overview } = useSheet();

const view = query.view;
const inList = computed(() => (source.value.kind === "list" ? source.value.list : undefined));
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
const empty = computed(() => view.value && displayed.value.length === 0);
const total = computed(() => {
  const n = view.value?.total ?? 0;
  const what = { done: "in all", bin: "in the bin" }[viewName.value] ?? "to do";
  return n === 0 ? "" : `${n} ${what}`;
});

/** Groups that stay folded until they are asked for. */
const unfolded = ref(new Set<string>());
watch(
  () => route.path,
  () => unfolded.value.clear(),
);
const folds = (kind: string) => kind === "put-aside" || kind === "paused";
const folded = (kind: string) => folds(kind) && !unfolded.value.has(kind);
function fold(kind: string) {
  if (!unfolded.value.delete(kind)) unfolded.value.add(kind);
}

const rows = computed<Row[]>(() => displayed.value.flatMap((g) => (folded(g.kind) ? [] : g.rows)));
const slip = computed(() => route.query.slip as string | undefined);
const openSlip = (id: string) => router.replace({ ...route, query: { ...route.query, slip: id } });

useRowKeys(rows, openSlip);

const into = computed(() => {
  if (source.value.kind === "list") return { list: source.value.list };
  if (source.value.kind === "rail") return { plan: source.value.cup };
  return undefined;
});
const failure = computed(() => {
  const e = query.error.value;
  if (!e || view.value) return undefined;
  return e instanceof Away
    ? { title: "The server is away", text: "Nothing can be read until it answers again." }
    : { title: "This could not be read", text: e.message };
});
</script>

<template>
  <div class="sheet-inner">
    <header class="top">
      <h1>{{ name }}</h1>
      <p v-if="view" class="sentence">
        {{ view.sentence }} <span v-if="total" class="total">{{ total }}.</span>
      </p>
    </header>

    <SheetState v-if="failure" v-bind="failure">
      <button class="btn" @click="query.refetch()">Try again</button>
    </SheetState>
    <div v-else-if="!view || !overview" class="loading" role="status">
      <span class="unseen">Loading</span>
      <div v-for="n in 6" :key="n" class="ghost" :style="{ width: `${62 - n * 6}%` }" />
    </div>
    <SheetState v-else-if="empty" v-bind="emptyWords(viewName)">
      <button v-if="nothingAtAll" class="btn main" @click="current.capture++">
        Put something in
      </button>
      <router-link v-else-if="viewName === 'today'" class="btn" to="/upcoming">
        What comes
      </router-link>
    </SheetState>
    <template v-else>
      <section
        v-for="group in displayed"
        :key="groupKey(group)"
        class="group"
        :data-group="group.kind"
        :data-horizon="group.horizon"
      >
        <GroupHead
          :group="group"
          :today="view.today"
          :overview="overview"
          :with-cup="upcoming"
          :folds="folds(group.kind)"
          :folded="folded(group.kind)"
          @fold="fold(group.kind)"
        />
        <ul v-if="!folded(group.kind)">
          <TodoRow
            v-for="row in group.rows"
            :key="row.todo.id"
            :row="row"
            :group="group"
            :overview="overview"
            :today="view.today"
            :in-list="inList"
            :open="slip === row.todo.id"
            @tick="actions.tick(row.todo)"
            @open="openSlip(row.todo.id)"
            @rename="(title) => actions.edit(row.todo, { title })"
            @restore="actions.run(row.todo.id, 'restore')"
          />
        </ul>
        <ComesRound v-if="group.comesRound" :todos="group.comesRound" @open="openSlip" />
      </section>
      <button v-if="query.hasNextPage.value" class="btn more" @click="query.fetchNextPage()">
        Show the next 200
      </button>
    </template>

    <AddHere v-if="into && view && overview" :place="route.path" :name="name" :into="into" />
    <p v-if="upcoming && view && view.beyond > 0" class="beyond">
      {{ view.beyond }} more {{ view.beyond === 1 ? "lies" : "lie" }} further ahead.
      <button v-if="months < 12" class="btn" @click="months = Math.min(months + 3, 12)">
        Show three more months
      </button>
    </p>
  </div>
</template>

<style scoped>
.sheet-inner {
  min-height: 100%;
  padding: 16px 20px 96px;
}
.top {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 14px;
  margin-bottom: 4px;
  padding-right: 8px;
}
h1 {
  font-size: 24px;
  font-weight: 600;
  line-height: 32px;
}
.sentence {
  color: var(--pencil);
}
.group {
  margin-bottom: 12px;
}
ul {
  padding: 0;
  list-style: none;
}
.more {
  margin: 12px 0;
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
