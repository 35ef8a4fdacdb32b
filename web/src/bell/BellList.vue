<script setup lang="ts">
import { computed, onMounted, useTemplateRef } from "vue";
import { useRoute, useRouter } from "vue-router";
import { giveFocus } from "@/kit/early-keys";
import LayerMenu from "@/kit/LayerMenu.vue";
import { useSettling } from "@/kit/settling";
import { walk } from "@/kit/walk";
import { useBell, useBellActions, useLaterOffers, type Ring, type Some } from "@/server/bell";
import { useSettings } from "@/server/choose";
import { reminders, ringWords, untilWords } from "@/words/bell";
import { shortMoment } from "@/words/dates";
import { useBellState } from "./bell";

/** What the bell holds: the rings that wait, those put off, and silence for a while. */
const props = defineProps<{ at: HTMLElement; today: string }>();
const emit = defineEmits<{ close: [] }>();
const state = useBellState();
const actions = useBellActions();
const settings = useSettings();
const route = useRoute();
const router = useRouter();
const { data: bell } = useBell();
const { data: offers } = useLaterOffers();
const open = computed(() => bell.value?.open ?? []);
const settling = useSettling(() => open.value.map((r) => r.id).join());
const more = computed(() => (bell.value?.openCount ?? 0) - open.value.length);
/** A pause is worth choosing from an hour on. */
const pauses = computed(() => offers.value?.filter((o) => o.minutes !== 10) ?? []);

const root = useTemplateRef("root");
onMounted(() => giveFocus(root.value?.querySelector<HTMLElement>("li button, .foot a")));

function show(ring: Ring) {
  void actions.seen([ring.id]);
  emit("close");
  void router.push({ ...route, query: { ...route.query, slip: ring.todo } });
}
function putOff(rings: Some) {
  emit("close");
  state.later = { rings, at: props.at };
}
</script>

<template>
  <LayerMenu layer="bell" :at="at" @close="emit('close')">
    <div
      ref="root"
      class="list"
      role="dialog"
      aria-label="Bell"
      @keydown.down.prevent="walk($event, 1)"
      @keydown.up.prevent="walk($event, -1)"
    >
      <h2>
        {{ open.length ? reminders(bell!.openCount) : "Nothing rings" }}
        <span v-if="open.length > 1" class="all">
          <button @click="putOff('all')">All later…</button>
          <button @click="actions.seen('all')">All seen</button>
        </span>
      </h2>
      <ul v-if="open.length" :class="{ settling }">
        <li v-for="r in open" :key="r.id" :data-ring="r.id">
          <button class="title" @click="show(r)">{{ r.title }}</button>
          <span class="when">{{ ringWords(r, today) }}</span>
          <span class="acts">
            <button :aria-label="`Done: ${r.title}`" @click="actions.done(r)">Done</button>
            <button :aria-label="`Later: ${r.title}`" @click="putOff([r.id])">Later…</button>
            <button :aria-label="`Seen: ${r.title}`" @click="actions.seen([r.id])">Seen</button>
          </span>
        </li>
      </ul>
      <p v-if="more > 0" class="quiet">and {{ more }} more, which come up as these are answered</p>
      <template v-if="bell?.later.length">
        <h3>Rings again</h3>
        <ul>
          <li v-for="r in bell.later" :key="r.id">
            <button class="title" @click="show(r)">{{ r.title }}</button>
            <span class="when">{{ shortMoment(r.later!, today) }}</span>
            <span class="acts">
              <button :aria-label="`Another time: ${r.title}`" @click="putOff([r.id])">
                Another time…
              </button>
              <button :aria-label="`Not again: ${r.title}`" @click="actions.seen([r.id])">
                Not again
              </button>
            </span>
          </li>
        </ul>
      </template>
      <div class="foot">
        <p class="next">
          <template v-if="bell?.quietUntil">
            Quiet {{ untilWords(bell.quietUntil, today) }}.
            {{ bell.muted ? "Something came, and rings then." : "What comes rings then." }}
          </template>
          <template v-else-if="bell?.next">Next: {{ shortMoment(bell.next, today) }}</template>
          <template v-else>No reminder is to come.</template>
        </p>
        <router-link to="/settings#reminders" @click="emit('close')">Settings</router-link>
        <button v-if="bell?.paused" class="btn" @click="settings.choose({ ringsPaused: null })">
          Ring again now
        </button>
        <div v-else class="pauses">
          <span>Pause all</span>
          <button
            v-for="o in pauses"
            :key="o.until"
            class="btn"
            @click="settings.choose({ ringsPaused: o.until })"
          >
            {{ untilWords(o.until, today) }}
          </button>
        </div>
      </div>
    </div>
  </LayerMenu>
</template>

<style scoped>
.list {
  display: flex;
  flex-direction: column;
  width: 480px;
  max-width: calc(100vw - 24px);
  max-height: min(560px, 84vh);
  overflow: auto;
}
h2,
h3 {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  padding: 10px 14px 6px;
  font-family: var(--slab);
  font-size: 15px;
}
h3 {
  color: var(--pencil);
  font-size: 14px;
}
ul {
  list-style: none;
}
.settling {
  pointer-events: none;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  gap: 0 12px;
  padding: 6px 14px 8px;
  border-top: 1px solid var(--tin);
}
.title {
  overflow: hidden;
  font-weight: 600;
  text-align: left;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: pointer;
}
.title:hover {
  text-decoration: underline;
}
.when,
.quiet {
  color: var(--pencil);
  font-variant-numeric: tabular-nums;
}
.quiet {
  padding: 4px 14px 8px;
  font-size: 14px;
}
.acts,
.all {
  display: flex;
  gap: 14px;
}
.acts {
  grid-column: 1 / -1;
}
.acts button,
.all button,
.foot a {
  min-height: 28px;
  color: var(--rim);
  font-family: var(--plain, inherit);
  font-size: 15px;
  font-weight: 400;
  text-decoration: underline;
  cursor: pointer;
}
.foot,
.pauses {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 6px 8px;
}
.pauses {
  flex-basis: 100%;
}
.foot {
  padding: 10px 14px;
  border-top: 1px solid var(--ink);
}
.next {
  flex: 1;
  color: var(--pencil);
}
@media (pointer: coarse) {
  .acts button,
  .all button,
  .foot a,
  .title {
    min-height: 40px;
  }
}
</style>
