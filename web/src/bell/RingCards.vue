<script setup lang="ts">
import { useEventListener } from "@vueuse/core";
import { computed, onMounted, ref, watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import { startWorker } from "@/kit/notices";
import { useSettling } from "@/kit/settling";
import { useCountInTitle } from "@/kit/title";
import { useBell, useBellActions, type Ring } from "@/server/bell";
import { inForce } from "@/server/in-force";
import { ringWords } from "@/words/bell";
import { useBellState } from "./bell";
import { useTelling } from "./telling";

/** The rings that wait for an answer, as cards at the top right: a few of them. */
const props = defineProps<{ today: string }>();
const state = useBellState();
const actions = useBellActions();
const route = useRoute();
const router = useRouter();
const { data: bell, refetch } = useBell();
const shown = 3;
/** Those that show, in their order: one that comes stands below, and moves no other. */
const standing = ref<string[]>([]);
watch(
  () => bell.value?.open,
  (open = []) => {
    const there = open.map((r) => r.id);
    const stay = standing.value.filter((id) => there.includes(id));
    const come = there.filter((id) => !stay.includes(id)).slice(0, shown - stay.length);
    standing.value = [...stay, ...come];
  },
  { immediate: true },
);
const cards = computed(() => {
  if (inForce.cards !== "on" || state.open) return [];
  return standing.value.flatMap((id) => bell.value?.open.find((r) => r.id === id) ?? []);
});
const settling = useSettling(() => cards.value.map((r) => r.id).join());
const more = computed(() => (bell.value?.openCount ?? 0) - cards.value.length);

useTelling(
  bell,
  async () => (await refetch()).isSuccess,
  () => props.today,
);
useCountInTitle(() => bell.value?.openCount ?? 0);
onMounted(startWorker);
useEventListener(
  () => navigator.serviceWorker,
  "message",
  (e: MessageEvent<{ show?: string }>) => e.data.show && void router.push(e.data.show),
);

function open(ring: Ring) {
  void actions.seen([ring.id]);
  void router.push({ ...route, query: { ...route.query, slip: ring.todo } });
}
</script>

<template>
  <div class="cards" :class="{ settling }" role="region" aria-label="Reminders" aria-live="polite">
    <article
      v-for="r in cards"
      :key="r.id"
      class="card"
      data-layer="ring"
      :data-ring="r.id"
      :aria-label="`Reminder: ${r.title}`"
    >
      <p class="title">{{ r.title }}</p>
      <p class="when">{{ ringWords(r, today) }}</p>
      <div class="acts">
        <button class="btn main" @click="actions.done(r)">Done</button>
        <button
          class="btn"
          aria-haspopup="dialog"
          @click="state.later = { rings: [r.id], at: $event.currentTarget as HTMLElement }"
        >
          Later…
        </button>
        <button class="btn" @click="open(r)">Open</button>
        <span class="gap" />
        <button class="seen" title="It rings no more" @click="actions.seen([r.id])">Seen</button>
      </div>
    </article>
    <p v-if="cards.length && state.mute" class="note">
      The browser keeps sounds off in this window until you press something in it.
    </p>
    <button v-if="cards.length && more > 0" class="note more" @click="state.open = true">
      and {{ more }} more in the bell
    </button>
  </div>
</template>

<style scoped>
.cards {
  position: fixed;
  z-index: 1500;
  top: 64px;
  right: 16px;
  display: flex;
  flex-direction: column;
  gap: 8px;
  width: 320px;
  max-width: calc(100vw - 24px);
  pointer-events: none;
}
.card,
.note {
  border: 2px solid var(--rim);
  border-radius: var(--corner);
  background: var(--glaze);
  box-shadow: 0 6px 18px rgb(0 0 0 / 22%);
  pointer-events: auto;
}
.settling * {
  pointer-events: none;
}
.card {
  padding: 10px 12px;
}
.title {
  display: -webkit-box;
  overflow: hidden;
  font-weight: 600;
  overflow-wrap: anywhere;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 3;
}
.when {
  color: var(--pencil);
  font-variant-numeric: tabular-nums;
}
.acts {
  display: flex;
  gap: 6px;
  margin-top: 8px;
}
.gap {
  flex: 1;
}
.seen {
  min-height: 32px;
  padding: 0 6px;
  color: var(--rim);
  text-decoration: underline;
  cursor: pointer;
}
.note {
  padding: 4px 12px;
  border-width: 1px;
  font-size: 14px;
}
.more {
  min-height: 32px;
  text-align: left;
  cursor: pointer;
}
@media (max-width: 760px) {
  .cards {
    top: 56px;
    right: 12px;
    left: 12px;
    width: auto;
  }
}
@media (pointer: coarse) {
  .acts .btn,
  .seen,
  .more {
    min-height: 40px;
  }
}
</style>
