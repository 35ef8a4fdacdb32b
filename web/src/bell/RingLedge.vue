<script setup lang="ts">
import { useEventListener } from "@vueuse/core";
import { computed, onBeforeUnmount, onMounted, ref, watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import { startWorker } from "@/kit/notices";
import { unrest } from "@/kit/pointer-rest";
import { useRoom } from "@/kit/room";
import { useSettling } from "@/kit/settling";
import { useCountInTitle } from "@/kit/title";
import { useBell, useBellActions, type Ring } from "@/server/bell";
import { inForce } from "@/server/in-force";
import { ringWords } from "@/words/bell";
import { useBellState } from "./bell";
import { useTelling } from "./telling";

/** The newest of the rings that wait for an answer, in a line of its own above the sheet. */
const props = defineProps<{ today: string }>();
const state = useBellState();
const actions = useBellActions();
const route = useRoute();
const router = useRouter();
const { data: bell, refetch } = useBell();

const waiting = computed(() => (inForce.cards === "on" ? (bell.value?.open ?? []) : []));
const room = useRoom(() => waiting.value.length > 0);
/** The ring that stands: until it is answered, or the pointer rests and a newer one has come. */
const standing = ref<string>();
const newest = computed(() => waiting.value[0]?.id);
let timer: ReturnType<typeof setTimeout> | undefined;
function follow() {
  clearTimeout(timer);
  const stands = room.value && waiting.value.some((r) => r.id === standing.value);
  const wait = stands && newest.value !== standing.value ? unrest() : 0;
  if (wait) timer = setTimeout(follow, wait);
  else standing.value = newest.value;
}
watch([waiting, room], follow, { immediate: true });
onBeforeUnmount(() => clearTimeout(timer));
const ring = computed(() =>
  room.value ? waiting.value.find((r) => r.id === standing.value) : undefined,
);
const settling = useSettling(() => ring.value?.id ?? "");
const more = computed(() => (ring.value ? (bell.value?.openCount ?? 0) - 1 : 0));

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
  <div
    class="ledge"
    :class="{ room, settling }"
    role="region"
    aria-label="Reminders"
    aria-live="polite"
  >
    <article
      v-if="ring"
      :key="ring.id"
      class="card"
      data-layer="ring"
      :data-ring="ring.id"
      :aria-label="`Reminder: ${ring.title}`"
    >
      <p class="words">
        <strong class="when">{{ ringWords(ring, today) }}</strong>
        <span class="title">{{ ring.title }}</span>
      </p>
      <div class="acts">
        <button class="btn main" @click="actions.done(ring)">Done</button>
        <button
          class="btn"
          aria-haspopup="dialog"
          @click="state.later = { rings: [ring.id], at: $event.currentTarget as HTMLElement }"
        >
          Later…
        </button>
        <button class="btn" @click="open(ring)">Open</button>
        <button class="seen" title="It rings no more" @click="actions.seen([ring.id])">Seen</button>
      </div>
      <span class="gap" />
      <span v-if="state.mute" class="mute">No sound until you press something here.</span>
      <button v-if="more > 0" class="more" @click="state.open = true">and {{ more }} more</button>
    </article>
  </div>
</template>

<style scoped>
.ledge {
  flex: none;
}
.room {
  min-height: 45px;
  border-bottom: 1px solid var(--tin);
  background: var(--glaze);
}
.settling * {
  pointer-events: none;
}
.card {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 14px;
  min-height: 44px;
  padding: 5px 20px 5px 30px;
}
.words {
  display: flex;
  gap: 14px;
  min-width: 0;
}
.when {
  flex: none;
  font-variant-numeric: tabular-nums;
}
.title {
  display: -webkit-box;
  overflow: hidden;
  overflow-wrap: anywhere;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
}
.acts {
  display: flex;
  gap: 8px;
}
.gap {
  flex: 1;
}
.seen,
.more {
  min-height: 32px;
  padding: 0 6px;
  color: var(--rim);
  cursor: pointer;
}
.seen {
  font-weight: 600;
}
.more {
  text-decoration: underline;
}
.mute {
  color: var(--pencil);
  font-size: 13px;
}
@media (max-width: 760px) {
  .card {
    padding: 6px 16px;
  }
  .gap {
    display: none;
  }
  .words {
    flex-basis: 100%;
  }
  .acts {
    gap: 6px;
  }
  .more {
    margin-left: auto;
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
