<script setup lang="ts">
import { useInfiniteQuery } from "@tanstack/vue-query";
import { computed } from "vue";
import { ask, client, type PastChange } from "@/server/client";
import SheetState from "@/kit/SheetState.vue";
import { useActions } from "@/server/actions";
import { useOverview } from "@/server/queries";
import { instantDay, instantTime, longDay } from "@/words/dates";

/** What was done, the newest first; each change can be undone where nothing later depends on it. */
const actions = useActions();
const { data: overview } = useOverview();
const query = useInfiniteQuery({
  queryKey: ["view", "history"],
  queryFn: ({ pageParam }) =>
    ask(() => client.GET("/api/history", { params: { query: { before: pageParam, limit: 40 } } })),
  initialPageParam: 0,
  getNextPageParam: (last) =>
    last.changes.length === 40 ? last.changes.at(-1)?.revision : undefined,
});
const days = computed(() => {
  const zone = overview.value?.zone ?? "UTC";
  const out: { day: string; changes: PastChange[] }[] = [];
  for (const c of query.data.value?.pages.flatMap((p) => p.changes) ?? []) {
    const day = instantDay(c.at, zone);
    if (out.at(-1)?.day !== day) out.push({ day, changes: [] });
    out.at(-1)?.changes.push(c);
  }
  return out;
});
</script>

<template>
  <div class="page">
    <header>
      <h1>History</h1>
      <p>What was done, the newest first. It is kept for 30 days at least.</p>
    </header>
    <SheetState
      v-if="query.data.value && !days.length"
      title="Nothing yet"
      text="Every change stands here and can be undone."
    />
    <template v-if="overview">
      <section v-for="d in days" :key="d.day">
        <h2>{{ d.day === overview.today ? "Today" : longDay(d.day, overview.today) }}</h2>
        <ul>
          <li v-for="c in d.changes" :key="c.revision" :data-change="c.revision">
            <span class="time">{{ instantTime(c.at, overview.zone) }}</span>
            <span class="what">
              <span :class="{ gone: !c.undoable && c.kind !== 'undo' }">{{ c.says }}</span>
              <span v-if="!c.undoable" class="why">{{ c.why }}</span>
            </span>
            <span class="where">{{ c.here ? "this window" : "" }}</span>
            <button v-if="c.undoable" class="btn" @click="actions.undo(c.revision)">Undo</button>
          </li>
        </ul>
      </section>
    </template>
    <button v-if="query.hasNextPage.value" class="btn" @click="query.fetchNextPage()">
      Show earlier ones
    </button>
  </div>
</template>

<style scoped>
.page {
  padding: 16px 20px 64px 30px;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 14px;
}
h1 {
  font-size: 24px;
  line-height: 32px;
}
header p,
.time,
.why,
.where {
  color: var(--pencil);
}
h2 {
  margin-top: 12px;
  padding-bottom: 5px;
  border-bottom: 1px solid var(--ink);
  font-size: 15px;
}
ul {
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  gap: 14px;
  min-height: 40px;
  padding: 4px 8px 4px 0;
  border-bottom: 1px solid color-mix(in srgb, var(--tin) 55%, transparent);
}
.time {
  width: 44px;
}
.what {
  flex: 1;
  min-width: 0;
  overflow-wrap: anywhere;
}
.gone {
  color: var(--pencil);
}
.why {
  display: block;
  font-size: 13px;
}
.where {
  font-size: 13px;
}
.page > .btn {
  margin-top: 14px;
}
@media (max-width: 760px) {
  .page {
    padding-left: 16px;
  }
  .where {
    display: none;
  }
}
</style>
