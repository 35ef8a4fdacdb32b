<script setup lang="ts">
import { computed, useTemplateRef, watch } from "vue";
import { useRoute } from "vue-router";
import CupGlyph from "@/kit/CupGlyph.vue";
import SheetState from "@/kit/SheetState.vue";
import { Away } from "@/server/client";
import { useOverview } from "@/server/queries";
import { useKeys } from "@/state/keys";
import { shortDay } from "@/words/dates";
import {
  decidedWords,
  lastOf,
  lastWords,
  steps,
  tookWords,
  walkNames,
  walks,
  walkWords,
} from "@/words/review";
import ReviewCard from "./ReviewCard.vue";
import { useWalking } from "./walking";

/** A guided walk: its steps as small cups that empty, and one to-do at a time in the middle. */
const route = useRoute();
const { data: overview } = useOverview();
const walk = computed(() => walks.find((w) => w === route.params.walk));
watch(walk, (w) => (document.title = `${w ? walkNames[w] : "Review"} · Tin Cup`), {
  immediate: true,
});
const walking = useWalking(walk, overview);
const { view, error, refetch } = walking.query;
const { order, left, level, step, go } = walking.steps;
const { row, then, writing, act, written, openSlip } = walking.asked;
const { acts, minutes, over, resumed, forget, end } = walking.told;
const choices = useTemplateRef<HTMLElement>("choices");
/** Before a review is begun, arrows go from one to the next; Enter begins it. */
useKeys((press) => {
  const by = { j: 1, ArrowDown: 1, k: -1, ArrowUp: -1 }[press];
  const links = [...(choices.value?.querySelectorAll("a") ?? [])];
  if (!by || !links.length) return false;
  const at = links.indexOf(document.activeElement as HTMLAnchorElement);
  const next = at < 0 ? (by > 0 ? 0 : links.length - 1) : at + by;
  links[Math.min(Math.max(next, 0), links.length - 1)]?.focus();
  return true;
});
const today = computed(() => overview.value?.today ?? "");
</script>

<template>
  <div class="page">
    <template v-if="!walk">
      <h1>Review</h1>
      <p class="sum">
        Walks through what may have been lost sight of: one to-do at a time, with the few things
        that can be done about it. Any can be broken off and gone on with later.
      </p>
      <ul v-if="overview" ref="choices" class="walks">
        <li v-for="w in walks" :key="w">
          <router-link :to="`/review/${w}`" class="walk">
            <strong>{{ walkNames[w] }}</strong>
            <span>{{ walkWords[w] }}</span>
            <em>{{ lastWords(lastOf(w, overview.settings), overview.today) }}</em>
          </router-link>
        </li>
      </ul>
    </template>
    <SheetState
      v-else-if="error && !view"
      :title="error instanceof Away ? 'The server is away' : 'The review could not be read'"
      :text="error instanceof Away ? 'The walk goes on when it answers again.' : error.message"
    >
      <button class="btn" @click="refetch()">Try again</button>
    </SheetState>
    <template v-else>
      <header>
        <h1>{{ walkNames[walk] }}</h1>
        <p v-if="overview" class="sum">
          {{ lastWords(lastOf(walk, overview.settings), overview.today) }}
        </p>
        <router-link class="btn quiet" to="/review">Other walks</router-link>
      </header>
      <p v-if="resumed" class="resumed">
        Begun {{ shortDay(resumed, today) }}.
        <button class="do" @click="forget">Begin anew</button>
      </p>
      <nav class="steps" aria-label="Steps">
        <button
          v-for="kind in order"
          :key="kind"
          class="step"
          :class="{ done: left(kind) === 0 }"
          :aria-current="kind === step ? 'step' : undefined"
          :aria-label="`${steps[kind]?.name ?? kind}: ${left(kind)} left`"
          @click="go(kind)"
        >
          <CupGlyph :level="level(kind)" :size="26" />
          <span class="name">{{ steps[kind]?.name ?? kind }}</span>
          <span class="count">{{ left(kind) || "–" }}</span>
        </button>
      </nav>
      <p v-if="walk === 'daily' && (view?.holds || view?.events)" class="holds">
        {{ [view.holds, view.events && `${view.events}.`].filter(Boolean).join(" ") }}
      </p>
      <div v-if="row && step && overview" class="middle">
        <ReviewCard
          :key="row.todo.id"
          class="one"
          :row="row"
          :step="step"
          :overview="overview"
          :writing="writing"
          @act="act"
          @open="openSlip"
          @written="written"
        />
        <aside v-if="then.length" aria-label="The rest of this step">
          <h3>Then</h3>
          <ol>
            <li v-for="r in then.slice(0, 14)" :key="r.todo.id">{{ r.todo.title }}</li>
          </ol>
          <p v-if="left(step) > 15">and {{ left(step) - 15 }} more</p>
        </aside>
      </div>
      <p v-else-if="view && !over">
        These are through, and there are more than can be read at once. Finish here, and walk
        through the rest anew.
      </p>
      <section v-else-if="over" class="end">
        <CupGlyph :size="64" />
        <h2>That is all of it.</h2>
      </section>
      <p v-if="view" class="told" role="status">
        Decided: {{ decidedWords(acts) }}. {{ tookWords(minutes) }}
        <button class="btn" :class="{ main: over }" @click="end">
          {{ over ? "Finish the review" : "Finish here" }}
          <span v-if="over" class="key">Enter</span>
        </button>
      </p>
    </template>
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
  max-width: 640px;
  color: var(--pencil);
}
.walks {
  display: grid;
  gap: 10px;
  max-width: 640px;
  padding-top: 16px;
  list-style: none;
}
.walk {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 12px;
  padding: 12px 16px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  color: var(--ink);
  text-decoration: none;
}
.walk:hover {
  background: var(--wash);
}
.walk strong {
  font-family: var(--slab);
  font-size: 17px;
}
.walk span {
  grid-column: 1 / -1;
  grid-row: 2;
  color: var(--pencil);
}
.walk em {
  color: var(--pencil);
  font-size: 14px;
  font-style: normal;
}
.resumed,
.holds {
  padding-top: 4px;
}
.steps {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  padding: 14px 0 10px;
}
.step {
  display: flex;
  flex-direction: column;
  align-items: center;
  min-width: 96px;
  padding: 6px 8px 4px;
  border-bottom: 2px solid transparent;
  font-size: 14px;
  line-height: 19px;
  cursor: pointer;
}
.step:hover {
  background: var(--wash);
}
.step[aria-current] {
  border-bottom-color: var(--rim);
  font-weight: 600;
}
.step.done .name {
  color: var(--pencil);
}
.step .count {
  color: var(--pencil);
  font-weight: 400;
  font-variant-numeric: tabular-nums;
}
.middle {
  display: flex;
  align-items: flex-start;
  gap: 28px;
  padding-top: 6px;
}
.one {
  flex: 1 1 0;
  max-width: 680px;
  min-width: 0;
}
aside {
  flex: 0 1 240px;
  min-width: 0;
  color: var(--pencil);
  font-size: 14px;
}
aside h3 {
  font-family: var(--slab);
  font-size: 14px;
}
aside ol {
  padding: 0;
  list-style: none;
}
aside li {
  overflow: hidden;
  line-height: 24px;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.end {
  display: flex;
  align-items: center;
  gap: 18px;
  padding: 24px 0 8px;
}
.end h2 {
  font-family: var(--slab);
  font-size: 20px;
}
.told {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  padding-top: 18px;
  color: var(--pencil);
}
@media (max-width: 760px) {
  .page {
    padding: 10px 14px 20px;
  }
  .steps {
    flex-wrap: nowrap;
    overflow-x: auto;
  }
  .step {
    flex: none;
    min-width: 80px;
  }
  .middle {
    flex-direction: column;
    align-items: stretch;
  }
  .one {
    flex: none;
  }
  aside {
    flex: none;
  }
}
</style>
