<script setup lang="ts">
import { useEventListener, useMediaQuery, useWindowSize } from "@vueuse/core";
import { computed, nextTick, provide, ref, useTemplateRef, watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import { mdiChevronLeft, mdiChevronRight } from "@mdi/js";
import PathIcon from "@/kit/PathIcon.vue";
import SheetState from "@/kit/SheetState.vue";
import { Away } from "@/server/client";
import { useActions } from "@/server/actions";
import { useSettings } from "@/server/choose";
import { inForce } from "@/server/in-force";
import { useOverview } from "@/server/queries";
import { useHoursOn, useSplit, useWeek, type WeekSlip as Slip } from "@/server/week";
import { useKeys } from "@/state/keys";
import { addDays, precision } from "@/words/dates";
import { estimateWords } from "@/words/fields";
import { spanOf, sumOf } from "@/words/week";
import { useAlso } from "./also";
import { useKept } from "./kept";
import { lengthened, scaleOf } from "./layout";
import { useProposals } from "./proposals";
import { tabStop, useWeekKeys } from "./week-keys";
import BeyondCup from "./BeyondCup.vue";
import GivePanel from "./GivePanel.vue";
import OwnHours from "./OwnHours.vue";
import ToPlace from "./ToPlace.vue";
import WeekCup from "./WeekCup.vue";
import WeekRim from "./WeekRim.vue";

/** The week as seven tall cups, with what is still to be placed above them. */
const route = useRoute();
const router = useRouter();
const actions = useActions();
const { choose } = useSettings();
const split = useSplit();
const hoursOn = useHoursOn();
const of = computed(() => (typeof route.params.of === "string" && route.params.of) || undefined);
const { data: week, error, refetch } = useWeek(of);
const { data: overview } = useOverview();

/** How high the tallest cup is, in pixels: all of it is in sight, unless that is too little. */
const { height: seen } = useWindowSize();
const height = computed(() =>
  Math.max(300, Math.min(seen.value - (saucered.value ? 492 : 410), 560)),
);
const scale = computed(() => scaleOf(week.value?.days ?? [], height.value));
const today = computed(() => week.value?.today ?? "");
const past = computed(() => week.value && addDays(week.value.first, 6) < today.value);
const named = computed(() => `Week ${Number(week.value?.week.slice(6) ?? 0)}`);
watch(named, (n) => (document.title = `${n} · Tin Cup`), { immediate: true });

const proposals = useProposals(of, week);
const { also, slips: found } = useAlso(week);
const kept = useKept(
  computed(() => {
    const days = week.value?.days.map((d) => [d.day, d.slips] as const) ?? [];
    return new Map([["loose", week.value?.loose ?? []], ["more", found.value], ...days]);
  }),
);
const loose = computed(() => kept.value.get("loose") ?? []);
const more = computed(() => kept.value.get("more") ?? []);
const days = computed(() =>
  (week.value?.days ?? []).map((d) => ({ ...d, slips: kept.value.get(d.day) ?? d.slips })),
);
/** Something of the week takes other hours than working hours, or may: cups stand on saucers. */
const saucered = computed(
  () =>
    (overview.value?.shelves ?? []).some((s) => s.hours === "own") ||
    days.value.some((d) => d.slips.some((s) => s.hours !== "working")),
);
const giving = ref(false);
watch(of, () => (giving.value = false));

/** The day whose cup is open: today's at first. On a phone all are, one at a time in sight. */
const narrow = useMediaQuery("(max-width: 760px)");
const chosen = ref<string | null>();
const open = computed(() => (chosen.value === undefined ? today.value : chosen.value));
const opened = (day: string) => day >= today.value && (narrow.value || day === open.value);
const turnCup = (day: string) => (chosen.value = open.value === day ? null : day);
const ownHours = ref<{ day: string; at: HTMLElement }>();
const ownDay = computed(() => week.value?.days.find((d) => d.day === ownHours.value?.day));
function setHours(hours: string | null) {
  const day = ownHours.value?.day;
  closeHours();
  if (day) void hoursOn(day, hours);
}
function closeHours() {
  const at = ownHours.value?.at;
  ownHours.value = undefined;
  void nextTick(() => at?.isConnected && at.focus());
}

const plan = (id: string, horizon: string | null) => actions.plan({ id }, horizon);
const lengthen = (slip: Slip, minutes: number) =>
  actions.inTurn(slip.todo, (fresh) => actions.edit(fresh, lengthened(fresh, minutes)));
const openSlip = (id: string) =>
  void router.replace({ ...route, query: { ...route.query, slip: id } });
const turn = (weeks: number) => {
  if (!week.value) return;
  const to = addDays(week.value.first, 7 * weeks);
  const here = addDays(to, 6) >= today.value && to <= today.value;
  void router.push(here ? "/week" : `/week/${to}`);
};
/** The weeks of the rail, its first months, and what is parked. */
const beyond = computed(() => {
  const rail = overview.value?.rail ?? [];
  const weeks = rail.filter((c) => precision(c.horizon) === "week");
  const months = rail.filter((c) => precision(c.horizon) === "month").slice(0, 2);
  const parked = rail.filter((c) => precision(c.horizon) === "parked");
  return [
    ...weeks
      .map((cup, i) => ({ cup, name: i ? "Next week" : "This week" }))
      .filter((c) => c.cup.horizon !== week.value?.week),
    ...[...months, ...parked].map((cup) => ({ cup, name: undefined })),
  ];
});

// On a phone one cup is seen at a time, today's first.
const cups = useTemplateRef<HTMLElement>("cups");
const near = ref("");
function goTo(day: string) {
  const box = cups.value;
  const at = box?.querySelector<HTMLElement>(`[data-day="${day}"]`);
  if (box && at) box.scrollLeft = at.offsetLeft - box.offsetLeft - 20;
}
function look() {
  const box = cups.value?.getBoundingClientRect();
  if (!box) return;
  const middle = box.left + box.width / 2;
  const all = [...(cups.value?.querySelectorAll<HTMLElement>("[data-day]") ?? [])];
  const there = all.find((el) => el.getBoundingClientRect().right > middle);
  near.value = there?.dataset.day ?? "";
}
useEventListener(cups, "scroll", look, { passive: true });
watch([cups, () => week.value?.first], async () => {
  await nextTick();
  goTo(today.value);
  look();
});

const { stop } = useWeekKeys({
  week,
  loose: computed(() => [...loose.value, ...more.value]),
  days,
  overview,
  opened,
  plan,
  take: proposals.take,
  turnCup: (day) => !narrow.value && turnCup(day),
  ownHours: (day, at) => (ownHours.value = { day, at }),
});
provide(tabStop, stop);
/** Esc puts away what is proposed, and then what has to give; an open slip comes before. */
useKeys((press) => {
  if (press !== "Escape" || route.query.slip) return false;
  if (proposals.wish.value) proposals.away();
  else if (giving.value) giving.value = false;
  else return false;
  return true;
});
const relieve = () => {
  const r = week.value?.relief;
  if (r) void plan(r.id, r.to);
};
const marks = computed({
  get: () => inForce.marks,
  set: (by) => void choose({ marks: by }, true),
});
</script>

<template>
  <SheetState
    v-if="error && !week"
    :title="error instanceof Away ? 'The server is away' : 'The week could not be read'"
    :text="error instanceof Away ? 'The week is shown when it answers again.' : error.message"
  >
    <button class="btn" @click="refetch()">Try again</button>
  </SheetState>
  <div v-else class="page">
    <header>
      <h1>{{ named }}</h1>
      <p v-if="week" class="sum">{{ spanOf(week.first) }}{{ past ? "." : `: ${sumOf(week)}.` }}</p>
      <label v-if="!past" class="marks">
        marked by
        <select v-model="marks">
          <option value="tag">tag</option>
          <option value="list">list</option>
          <option value="priority">priority</option>
        </select>
      </label>
      <span class="turn">
        <button class="btn quiet" aria-label="The week before" @click="turn(-1)">
          <PathIcon :path="mdiChevronLeft" :size="18" />
        </button>
        <button class="btn quiet" aria-label="The week after" @click="turn(1)">
          <PathIcon :path="mdiChevronRight" :size="18" />
        </button>
      </span>
      <button
        v-if="!past"
        class="btn"
        :aria-pressed="proposals.wish.value?.for === 'days'"
        @click="proposals.turn"
      >
        {{ proposals.wish.value?.for === "days" ? "Put proposals away" : "Level the week" }}
      </button>
    </header>
    <p v-if="week" class="says" role="status">
      {{ week.says }}
      <button v-if="week.relief" class="do" @click="relieve">Move it</button>
      <button v-if="week.late && !giving" class="do" @click="giving = true">
        What has to give
      </button>
    </p>
    <GivePanel
      v-if="giving && overview"
      :of="of"
      :overview="overview"
      :today="today"
      @close="giving = false"
      @open="openSlip"
    />
    <p v-if="proposals.says.value" class="says proposal" role="status">
      {{ proposals.says.value }}
      <button v-if="proposals.plans.value.size" class="do" @click="proposals.takeAll">
        Take {{ proposals.plans.value.size === 1 ? "it" : `all ${proposals.plans.value.size}` }}
      </button>
      <button
        v-for="t in proposals.tooLong.value"
        :key="t.id"
        class="do"
        @click="split(t.id, t.parts)"
      >
        Split “{{ t.title }}”, {{ estimateWords(t.minutes) }}, into {{ t.parts }}
      </button>
      <button v-if="proposals.wish.value?.for === 'hours'" class="do" @click="proposals.away">
        Put away
      </button>
    </p>
    <ToPlace
      v-if="week && overview"
      v-model:also="also"
      :slips="loose"
      :more="more"
      :overview="overview"
      :today="today"
      @open="openSlip"
      @drop="(id) => week && plan(id, week.week)"
    />
    <nav v-if="overview" class="beyonds" aria-label="Beyond this week">
      <BeyondCup
        v-for="c in beyond"
        :key="c.cup.horizon"
        :cup="c.cup"
        :name="c.name"
        @drop="(id) => plan(id, c.cup.horizon)"
      />
    </nav>
    <nav v-if="narrow && week" class="rims" aria-label="Days of the week">
      <WeekRim
        v-for="d in days"
        :key="d.day"
        :day="d"
        :today="today"
        :near="d.day === near"
        @go="goTo(d.day)"
        @drop="(id) => plan(id, d.day)"
      />
    </nav>
    <div v-if="week && overview" ref="cups" class="cups">
      <WeekCup
        v-for="d in days"
        :key="d.day"
        :day="d"
        :today="today"
        :now="week.now"
        :overview="overview"
        :scale="scale"
        :height="height"
        :opened="opened(d.day)"
        :saucered="saucered"
        :proposed="proposals.onto(d.day)"
        :hours="proposals.plans.value"
        @open="openSlip"
        @take="proposals.take"
        @drop="(id) => plan(id, d.day)"
        @put="plan"
        @lengthen="lengthen"
        @turn="turnCup(d.day)"
        @lay-out="proposals.layOut(d.day)"
        @own-hours="(at) => (ownHours = { day: d.day, at })"
      />
    </div>
    <OwnHours
      v-if="ownHours && ownDay"
      :day="ownDay"
      :at="ownHours.at"
      @choose="setHours"
      @close="closeHours"
    />
  </div>
</template>

<style scoped>
.page {
  padding: 16px 20px 40px 30px;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 14px;
}
h1 {
  font-size: 24px;
  line-height: 32px;
}
.sum {
  flex: 1;
  color: var(--pencil);
}
.turn {
  display: flex;
}
.marks {
  color: var(--pencil);
  font-size: 14px;
}
.marks select {
  field-sizing: content;
  min-height: 28px;
  color: var(--rim);
  font-weight: 600;
  cursor: pointer;
}
.says {
  min-height: 28px;
  padding-top: 4px;
}
.proposal {
  color: var(--copper);
}
.rims {
  display: flex;
  padding-top: 6px;
}
.beyonds {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 2px 4px;
}
.cups {
  display: flex;
  align-items: flex-end;
  gap: 12px;
  padding: 12px 5px 0;
}
@media (max-width: 760px) {
  .page {
    display: flex;
    flex-direction: column;
    padding: 10px 0 20px 14px;
  }
  .sum {
    flex-basis: 100%;
    order: 1;
  }
  .turn {
    margin-left: auto;
  }
  .marks,
  header > .btn {
    order: 1;
  }
  .rims {
    display: flex;
    padding-top: 6px;
  }
  .beyonds {
    order: 1;
    justify-content: flex-start;
  }
  .page > * {
    margin-right: 14px;
  }
  /* One cup at a time, and the edge of the next. */
  .page .cups {
    align-items: flex-start;
    gap: 18px;
    margin-right: 0;
    padding: 12px 14px 8px 5px;
    overflow-x: auto;
    scroll-snap-type: x proximity;
  }
  .cups > * {
    flex: 0 0 86vw;
    scroll-snap-align: center;
  }
}
@media (pointer: coarse) {
  .do {
    min-height: 40px;
    margin-block: -8px;
  }
}
</style>
