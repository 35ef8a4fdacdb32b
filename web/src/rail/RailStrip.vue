<script setup lang="ts">
import { mdiChevronLeft, mdiChevronRight } from "@mdi/js";
import { useEventListener, useMediaQuery } from "@vueuse/core";
import { computed, ref, watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import type { Overview } from "@/server/client";
import { useCurrent } from "@/state/current";
import { useMany } from "@/server/many";
import { precision } from "@/words/dates";
import PathIcon from "@/kit/PathIcon.vue";
import RailCup from "./RailCup.vue";

const props = defineProps<{ overview: Overview }>();
const router = useRouter();
const route = useRoute();
const many = useMany();
const current = useCurrent();

const pathOf = (horizon: string) =>
  horizon === props.overview.today ? "/today" : `/rail/${horizon}`;
/** Which of the months after this one is shown; the arrows beside it go on. */
const month = ref(0);
const months = computed(() => props.overview.rail.filter((c) => precision(c.horizon) === "month"));
const shownMonth = computed(() => months.value[1 + month.value] ?? months.value[1]);
const cups = computed(() =>
  props.overview.rail.filter(
    (c) => precision(c.horizon) !== "month" || c === months.value[0] || c === shownMonth.value,
  ),
);
/** On a phone it folds to a line of rims while the sheet is scrolled. */
const narrow = useMediaQuery("(max-width: 760px)");
const scrolled = ref(false);
useEventListener(
  document,
  "scroll",
  (e) => {
    if (e.target instanceof Element && e.target.matches("main.sheet"))
      scrolled.value = e.target.scrollTop > 30;
  },
  { capture: true, passive: true },
);
watch(
  () => route.path,
  () => (scrolled.value = false),
);
const folded = computed(() => narrow.value && scrolled.value && !current.lifting);
const turn = (by: 1 | -1) =>
  (month.value = Math.max(0, Math.min(month.value + by, months.value.length - 2)));
const overdue = computed(() => props.overview.counts.overdue);
</script>

<template>
  <nav
    class="rail"
    :class="{ folded, saucered: overview.rail.some((c) => c.load.own) }"
    aria-label="Rail: when things are planned"
  >
    <template v-for="(cup, i) in cups" :key="cup === shownMonth ? 'month' : cup.horizon">
      <span v-if="i === 7" class="divider" aria-hidden="true" />
      <div :class="i === 0 ? 'first' : 'other'">
        <button
          v-if="cup === shownMonth"
          class="turn"
          aria-label="The month before"
          :disabled="month === 0"
          @click="turn(-1)"
        >
          <PathIcon :path="mdiChevronLeft" :size="18" />
        </button>
        <RailCup
          :cup="cup"
          :today="overview.today"
          :nth="i"
          :shown="route.path === pathOf(cup.horizon)"
          @show="router.push(pathOf(cup.horizon))"
          @drop="(id) => many.plan(id, cup.horizon)"
        />
        <button
          v-if="cup === shownMonth"
          class="turn"
          aria-label="The month after"
          :disabled="month === months.length - 2"
          @click="turn(1)"
        >
          <PathIcon :path="mdiChevronRight" :size="18" />
        </button>
        <router-link v-if="i === 0 && overdue" to="/overdue" class="spill">
          <svg width="62" height="10" viewBox="0 0 62 10" aria-hidden="true">
            <path d="M4 6q-4-2 4-3 8-3 22-2 14-2 24 1 9 1 4 4-8 3-26 3-22 0-28-3z" />
          </svg>
          <span>{{ overdue }} overdue</span>
        </router-link>
      </div>
    </template>
  </nav>
</template>

<style scoped>
.rail {
  display: flex;
  align-items: center;
  height: 104px;
  padding: 0 16px;
  overflow-x: auto;
  overflow-y: hidden;
  scrollbar-width: thin;
  border-bottom: 2px solid var(--rim);
}
.saucered {
  height: 118px;
}
.saucered :deep(.rail-cup) {
  height: 98px;
}
.first {
  position: relative;
  flex: 0 0 188px;
}
.other {
  display: flex;
  flex: 1 1 0;
}
.turn {
  align-self: center;
  width: 24px;
  height: 40px;
  margin: 0 -4px;
  border-radius: var(--corner);
  color: var(--pencil);
  cursor: pointer;
}
.turn:hover:enabled {
  background: var(--wash);
  color: var(--rim);
}
.turn:disabled {
  visibility: hidden;
}
.spill {
  position: absolute;
  bottom: 4px;
  left: 8px;
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 24px;
  color: var(--madder);
  font-size: 13px;
  font-weight: 600;
  text-decoration: none;
}
.spill:hover span {
  text-decoration: underline;
}
.spill path {
  fill: var(--madder);
}
@media (max-width: 760px) {
  .rail {
    flex: none;
    height: 60px;
    padding: 0 8px;
    scrollbar-width: none;
    transition: height 120ms;
  }
  .first {
    flex-basis: 150px;
  }
  .spill {
    bottom: 0;
    left: 46px;
    min-height: 20px;
  }
  .spill svg {
    width: 24px;
  }
  .rail.saucered {
    height: 60px;
  }
  .saucered :deep(.rail-cup) {
    height: 56px;
  }
  .rail.folded {
    align-items: flex-start;
    height: 13px;
  }
  .folded .spill,
  .folded .turn {
    display: none;
  }
}
@media (prefers-reduced-motion: reduce) {
  .rail {
    transition: none;
  }
}
.divider {
  flex: 0 0 1px;
  height: 60px;
  margin: 0 4px;
  background: var(--tin);
}
</style>
