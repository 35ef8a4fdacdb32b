<script setup lang="ts">
import { computed, nextTick, provide, ref, useTemplateRef, watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import { mdiChevronLeft, mdiChevronRight } from "@mdi/js";
import PathIcon from "@/kit/PathIcon.vue";
import SheetState from "@/kit/SheetState.vue";
import { Away } from "@/server/client";
import { useActions } from "@/server/actions";
import { useOverview } from "@/server/queries";
import { useLevel, usePlanEach, useWeek, type WeekSlip as Slip } from "@/server/week";
import { useDrop } from "@/state/drop";
import { addDays, precision } from "@/words/dates";
import { spanOf, sumOf } from "@/words/week";
import { scaleOf } from "./layout";
import { tabStop, useWeekKeys } from "./week-keys";
import BeyondCup from "./BeyondCup.vue";
import WeekCup from "./WeekCup.vue";
import WeekSlip from "./WeekSlip.vue";

/** The week as seven tall cups, with what is still to be placed above them. */
const route = useRoute();
const router = useRouter();
const actions = useActions();
const planEach = usePlanEach();
const of = computed(() => (typeof route.params.of === "string" && route.params.of) || undefined);
const { data: week, error, refetch } = useWeek(of);
const { data: overview } = useOverview();

/** How high the tallest cup is, in pixels. */
const height = 420;
const scale = computed(() => scaleOf(week.value?.days ?? [], height));
const today = computed(() => week.value?.today ?? "");
const past = computed(() => week.value && addDays(week.value.first, 6) < today.value);
const named = computed(() => `Week ${Number(week.value?.week.slice(6) ?? 0)}`);
watch(named, (n) => (document.title = `${n} · Tin Cup`), { immediate: true });

// What is proposed, while it is wished for; another week has not been asked about.
const levelling = ref(false);
watch(of, () => (levelling.value = false));
const { data: level, error: levelError } = useLevel(of, levelling);
const slipOf = computed(() => {
  const all = [...(week.value?.loose ?? []), ...(week.value?.days.flatMap((d) => d.slips) ?? [])];
  return new Map(all.map((s) => [s.todo.id, s]));
});
const lies = computed(() => {
  const on = new Map<string, string>();
  for (const d of week.value?.days ?? []) for (const s of d.slips) on.set(s.todo.id, d.day);
  return on;
});
/** Of the proposals those that would move something. */
const proposals = computed(() =>
  levelling.value && level.value
    ? level.value.proposals.filter((p) => slipOf.value.has(p.id) && lies.value.get(p.id) !== p.day)
    : [],
);
const proposedOn = (day: string): Slip[] =>
  proposals.value.filter((p) => p.day === day).map((p) => slipOf.value.get(p.id)!);
const verdict = computed(() => {
  if (!levelling.value) return "";
  if (levelError.value) return "The week could not be levelled. Try again.";
  if (!level.value) return "Levelling…";
  return proposals.value.length ? level.value.says : "Nothing needs to move.";
});
async function takeAll() {
  if (await planEach(proposals.value)) levelling.value = false;
}
const take = (id: string) => {
  const one = proposals.value.find((p) => p.id === id);
  if (one) void actions.plan({ id }, one.day);
};

const plan = (id: string, horizon: string | null) => actions.plan({ id }, horizon);
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
  return [
    ...weeks
      .map((cup, i) => ({ cup, name: i ? "Next week" : "This week" }))
      .filter((c) => c.cup.horizon !== week.value?.week),
    ...rail
      .filter((c) => precision(c.horizon) === "month")
      .slice(0, 2)
      .map((cup) => ({ cup, name: undefined })),
    ...rail
      .filter((c) => precision(c.horizon) === "parked")
      .map((cup) => ({ cup, name: undefined })),
  ];
});
// On a phone today's cup is the one that is seen first.
const cups = useTemplateRef<HTMLElement>("cups");
watch([cups, () => week.value?.first], async () => {
  await nextTick();
  const at = cups.value?.querySelector<HTMLElement>(`[data-day="${today.value}"]`);
  if (cups.value && at) cups.value.scrollLeft = at.offsetLeft - cups.value.offsetLeft - 20;
});
const loose = useTemplateRef<HTMLElement>("loose");
/** Dropped here it is planned for the week, and for none of its days. */
const hovered = useDrop(loose, (id) => week.value && void plan(id, week.value.week));

const stop = useWeekKeys({
  week,
  overview,
  proposed: (id) => proposals.value.find((p) => p.id === id),
  plan,
  take,
  openSlip,
  turn,
});
provide(tabStop, stop);
const levelWeek = () => (levelling.value = !levelling.value);
const relieve = () => {
  const r = week.value?.relief;
  if (r) void plan(r.id, r.to);
};
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
      <span class="turn">
        <button class="btn quiet" aria-label="The week before" @click="turn(-1)">
          <PathIcon :path="mdiChevronLeft" :size="18" />
        </button>
        <button class="btn quiet" aria-label="The week after" @click="turn(1)">
          <PathIcon :path="mdiChevronRight" :size="18" />
        </button>
      </span>
      <button v-if="!past" class="btn" :aria-pressed="levelling" @click="levelWeek">
        {{ levelling ? "Put proposals away" : "Level the week" }}
      </button>
    </header>
    <p v-if="week" class="says" role="status">
      {{ week.says }}
      <button v-if="week.relief" class="do" @click="relieve">Move it</button>
    </p>
    <p v-if="verdict" class="says proposal" role="status">
      {{ verdict }}
      <button v-if="proposals.length" class="do" @click="takeAll">
        Take {{ proposals.length === 1 ? "it" : `all ${proposals.length}` }}
      </button>
    </p>
    <div ref="loose" class="loose" :class="{ hovered, bare: !week?.loose.length }">
      <h2>To place</h2>
      <template v-if="week && overview">
        <WeekSlip
          v-for="s in week.loose"
          :key="s.todo.id"
          class="chip"
          :slip="s"
          :overview="overview"
          :today="today"
          told
          @open="openSlip(s.todo.id)"
        />
        <p v-if="!week.loose.length">
          Nothing is planned for this week without a day. Drop a slip here to leave its day open.
        </p>
      </template>
    </div>
    <nav v-if="overview" class="beyonds" aria-label="Beyond this week">
      <BeyondCup
        v-for="c in beyond"
        :key="c.cup.horizon"
        :cup="c.cup"
        :name="c.name"
        @drop="(id) => plan(id, c.cup.horizon)"
      />
    </nav>
    <div v-if="week && overview" ref="cups" class="cups">
      <WeekCup
        v-for="d in week.days"
        :key="d.day"
        :day="d"
        :today="today"
        :overview="overview"
        :scale="scale"
        :proposed="proposedOn(d.day)"
        @open="openSlip"
        @take="take"
        @drop="(id) => plan(id, d.day)"
      />
    </div>
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
.says {
  min-height: 28px;
  padding-top: 4px;
}
.proposal {
  color: var(--copper);
}
.do {
  min-height: 24px;
  margin-left: 6px;
  color: var(--rim);
  font-weight: 600;
  text-decoration: underline;
  cursor: pointer;
}
.loose {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  margin: 8px 0 4px;
  padding: 7px 9px;
  border: 1px dashed var(--tin);
  border-radius: var(--corner);
}
.loose.hovered {
  border: 1px dashed var(--rim);
  background: var(--wash);
}
.loose h2 {
  margin-right: 4px;
  font-family: var(--slab);
  font-size: 14px;
}
.loose p {
  color: var(--pencil);
  font-size: 14px;
}
.beyonds {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 2px 4px;
}
.chip {
  align-items: center;
  width: auto;
  max-width: 340px;
  min-height: 26px;
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
  .beyonds {
    order: 1;
    justify-content: flex-start;
  }
  /* One line that scrolls: the cups are what the page is for. */
  .loose {
    flex: none;
    flex-wrap: nowrap;
    overflow-x: auto;
  }
  .loose h2,
  .chip {
    flex: none;
  }
  .page > * {
    margin-right: 14px;
  }
  /* One cup at a time, and the edge of the next. */
  .page .cups {
    gap: 18px;
    margin-right: 0;
    padding: 12px 14px 8px 5px;
    overflow-x: auto;
    scroll-snap-type: x proximity;
  }
  .cups > * {
    flex: 0 0 74vw;
    scroll-snap-align: center;
  }
  .chip {
    min-height: 40px;
  }
}
@media (pointer: coarse) {
  .do {
    min-height: 40px;
    margin-block: -8px;
  }
}
</style>
