<script setup lang="ts">
import { computed } from "vue";
import type { Overview, Todo } from "@/server/client";
import { useActions } from "@/server/actions";
import { useSlack } from "@/server/slack";
import { type Chooser, useCurrent } from "@/state/current";
import { choicePatch, choices, chosen } from "@/words/choices";
import { fullMoment, planWords, shortDay } from "@/words/dates";
import { estimateWords, personById, roleWords } from "@/words/fields";
import { listById, tagColour } from "@/words/names";
import SlipEntry from "./SlipEntry.vue";
import SlipReminders from "./SlipReminders.vue";

/** When, where and who: what a slip has beside its title and notes. */
const props = defineProps<{ todo: Todo; overview: Overview; binned: boolean }>();
const actions = useActions();
const current = useCurrent();

const home = computed(() => {
  const at = listById(props.overview, props.todo.list);
  const section = at?.list.sections?.find((s) => s.id === props.todo.section);
  if (!at) return "None yet: it is in the Cup";
  return [at.shelf.name, at.list.name, section?.name].filter(Boolean).join(" · ");
});
const plan = computed(() => {
  const p = props.todo.plan;
  if (!p) return "Not planned";
  const words = planWords(p, props.overview.today);
  return words.charAt(0).toUpperCase() + words.slice(1);
});
const slack = useSlack(() => props.todo);
const person = computed(() => personById(props.overview, props.todo.person?.id));
/** What has been of a repeat so far. */
const past = computed(() => {
  const r = props.todo.repeat;
  if (!r || props.todo.record) return "";
  const parts: string[] = [];
  if (r.lastDone) parts.push(`Last done ${shortDay(r.lastDone, props.overview.today)}`);
  if (r.ticks) parts.push(`${r.ticks} ${r.ticks === 1 ? "time" : "times"} in all`);
  if (r.missed) parts.push(`missed ${r.missed} ${r.missed === 1 ? "time" : "times"}`);
  return parts.join(", ");
});

function choose(kind: Chooser["kind"], e: Event) {
  current.chooser = { kind, todo: props.todo, at: e.currentTarget as HTMLElement };
}
const first = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);
</script>

<template>
  <dl>
    <dt>List</dt>
    <dd>
      <button
        class="value"
        :disabled="binned"
        aria-haspopup="dialog"
        @click="choose('list', $event)"
      >
        {{ home }}
      </button>
    </dd>
    <dt>Due</dt>
    <dd>
      <button
        class="value"
        :class="{ none: !todo.due }"
        :disabled="binned"
        aria-haspopup="dialog"
        @click="choose('due', $event)"
      >
        {{ todo.due ? fullMoment(todo.due) : "No due" }}
      </button>
      <p v-if="slack?.words" class="past" :class="{ short: slack.short, late: slack.late }">
        {{ slack.words }}
      </p>
    </dd>
    <dt>Plan</dt>
    <dd>
      <button
        class="value"
        :class="{ none: !todo.plan }"
        :disabled="binned"
        aria-haspopup="dialog"
        @click="choose('plan', $event)"
      >
        {{ plan }}
      </button>
    </dd>
    <dt>Start</dt>
    <dd>
      <button
        class="value"
        :class="{ none: !todo.start }"
        :disabled="binned"
        aria-haspopup="dialog"
        @click="choose('start', $event)"
      >
        {{ todo.start ? fullMoment(todo.start) : "At any time" }}
      </button>
    </dd>
    <dt>Repeat</dt>
    <dd>
      <button
        class="value"
        :class="{ none: !todo.repeat }"
        :disabled="binned || todo.record !== undefined"
        aria-haspopup="dialog"
        @click="choose('repeat', $event)"
      >
        {{ todo.repeat ? first(todo.repeat.words) : "Does not repeat" }}
      </button>
      <p v-if="past" class="past">{{ past }}</p>
    </dd>
    <dt>Takes</dt>
    <dd>
      <SlipEntry
        field="estimate"
        :todo="todo"
        :value="todo.estimate ? estimateWords(todo.estimate) : ''"
        none="Not estimated"
        example="20 min, 1h30"
        :disabled="binned"
      />
    </dd>
    <template v-for="c in choices" :key="c.field">
      <dt :id="`${c.field}-label`">{{ first(c.name) }}</dt>
      <dd>
        <div class="steps" role="group" :aria-labelledby="`${c.field}-label`">
          <button
            v-for="v in c.values"
            :key="v.value"
            class="step"
            :aria-pressed="chosen(c, todo) === v.value"
            :disabled="binned"
            @click="actions.edit(todo, choicePatch(c, v.value))"
          >
            {{ v.name }}
          </button>
        </div>
      </dd>
    </template>
    <dt>Tags</dt>
    <dd>
      <button
        class="value"
        :class="{ none: !todo.tags.length }"
        :disabled="binned"
        aria-haspopup="dialog"
        @click="choose('tags', $event)"
      >
        <span
          v-for="tag in todo.tags"
          :key="tag"
          class="tag"
          :style="{ borderColor: `var(--${tagColour(overview, tag)})` }"
          >{{ tag }}</span
        >
        <template v-if="!todo.tags.length">No tags</template>
      </button>
    </dd>
    <dt>Place</dt>
    <dd>
      <button
        class="value"
        :class="{ none: !todo.place }"
        :disabled="binned"
        aria-haspopup="dialog"
        @click="choose('place', $event)"
      >
        {{ todo.place ?? "Nowhere in particular" }}
      </button>
    </dd>
    <dt>Who</dt>
    <dd>
      <button
        class="value"
        :class="{ none: !todo.person }"
        :disabled="binned"
        aria-haspopup="dialog"
        @click="choose('person', $event)"
      >
        {{ todo.person && person ? `${roleWords[todo.person.role]} ${person.name}` : "Nobody" }}
      </button>
      <p v-if="person && (person.email || person.phone)" class="past">
        <a v-if="person.email" :href="`mailto:${person.email}`">{{ person.email }}</a>
        <a v-if="person.phone" :href="`tel:${person.phone.replace(/\s/g, '')}`">{{
          person.phone
        }}</a>
      </p>
    </dd>
    <dt>Remind</dt>
    <dd>
      <SlipReminders :todo="todo" :today="overview.today" :binned="binned" />
    </dd>
    <template v-if="todo.source">
      <dt>Made of</dt>
      <dd>{{ todo.source.words }}</dd>
    </template>
  </dl>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: minmax(64px, max-content) 1fr;
  gap: 2px 14px;
  margin: 14px 0;
}
dt {
  color: var(--pencil);
  line-height: 28px;
}
.past {
  color: var(--pencil);
  font-size: 14px;
}
.past.short {
  color: var(--copper);
  font-weight: 600;
}
.past.late {
  color: var(--madder);
}
.past a {
  display: block;
  padding: 2px 0;
  color: var(--rim);
}
.steps {
  display: flex;
  gap: 2px;
  margin-left: -6px;
}
.step {
  min-height: 28px;
  padding: 0 6px;
  border: 1px solid transparent;
  border-radius: var(--corner);
  color: var(--pencil);
  cursor: pointer;
}
.step:hover:enabled {
  border-color: var(--tin);
}
.step[aria-pressed="true"] {
  border-color: var(--rim);
  background: var(--glaze);
  color: var(--ink);
  font-weight: 600;
}
.tag {
  display: inline-block;
  margin-right: 10px;
  border-bottom: 2px solid;
}
</style>
