<script setup lang="ts">
import { computed, nextTick } from "vue";
import type { Overview, RepeatChoice, Todo, TodoPatch } from "@/server/client";
import { useActions } from "@/server/actions";
import { useMany } from "@/server/many";
import { rowElement, useCurrent, type Walking } from "@/state/current";
import { useTodo } from "@/server/queries";
import { useToasts } from "@/kit/toasts";
import LayerMenu from "@/kit/LayerMenu.vue";
import EstimateChooser from "./EstimateChooser.vue";
import ListChooser from "./ListChooser.vue";
import MomentChooser from "./MomentChooser.vue";
import PersonChooser from "./PersonChooser.vue";
import PlaceChooser from "./PlaceChooser.vue";
import PlanChooser from "./PlanChooser.vue";
import RepeatEditor from "./RepeatEditor.vue";
import TagChooser from "./TagChooser.vue";

/** The one chooser that is open, hung on the row or field that asked for it. */
defineProps<{ overview: Overview }>();
const current = useCurrent();
const actions = useActions();
const many = useMany();
const toasts = useToasts();
const { data: fresh } = useTodo(computed(() => current.chooser?.todo?.id ?? ""));
const todo = computed(() => {
  const shown = current.chooser?.todo;
  return fresh.value?.id === shown?.id ? fresh.value : shown;
});

async function close() {
  const chooser = current.chooser;
  const given = current.walking?.given;
  current.chooser = undefined;
  current.walking = undefined;
  if (given)
    toasts.show({ text: `Minutes given to ${given === 1 ? "1 to-do" : `${given} to-dos`}.` });
  await nextTick();
  const back = chooser?.at.isConnected ? chooser.at : rowElement(chooser?.todo?.id);
  back?.focus();
}
async function set(field: "due" | "start" | "plan", value: string | null) {
  const t = todo.value;
  const ids = current.chooser?.ids;
  await close();
  if (ids)
    return void many.change(
      ids,
      field === "due"
        ? { do: "due", due: value }
        : field === "plan"
          ? { do: "plan", plan: value }
          : { do: "edit", patch: { start: value } },
    );
  if (!t || t[field] === value) return;
  if (field === "plan") await actions.plan(t, value);
  else await actions.edit(t, { [field]: value });
}
/** Sets a field of one, or the same in many. */
async function setField(patch: TodoPatch) {
  const t = todo.value;
  const ids = current.chooser?.ids;
  await close();
  if (ids) return void many.change(ids, { do: "edit", patch });
  const [field] = Object.keys(patch) as (keyof TodoPatch & keyof Todo)[];
  if (t && field && (t[field] ?? null) !== patch[field]) await actions.edit(t, patch);
}
async function setPlace(list: string | null, section: string | null) {
  const t = todo.value;
  const ids = current.chooser?.ids;
  await close();
  if (ids) await many.change(ids, { do: "move", place: { list, section } });
  else if (t && (t.list !== list || (t.section ?? null) !== section))
    await actions.move(t, list, section);
}
async function setTags(add: string[], remove: string[]) {
  const ids = current.chooser?.ids;
  if (ids) {
    await close();
    await many.change(ids, { do: "tags", add, remove });
  } else if (todo.value) await actions.tag(todo.value, add, remove);
}
function setMoment(value: string | null) {
  const kind = current.chooser?.kind;
  if (kind === "due" || kind === "start") void set(kind, value);
}
/** Gives minutes to what the chooser hangs on; a walk goes on to the next. */
async function setMinutes(minutes: number | null) {
  const t = todo.value;
  const ids = current.chooser?.ids;
  const walking = current.walking;
  if (walking) walkTo({ ...walking, at: walking.at + 1, given: walking.given + 1 });
  else await close();
  if (ids) await many.change(ids, { do: "estimate", estimate: minutes });
  else if (t && (t.estimate ?? null) !== minutes) {
    // A walk shows what it gives in the rows; a message a step would lie over them.
    const kept = await actions.edit(t, { estimate: minutes }, walking !== undefined);
    // What was not kept is asked for again, where the walk is still under way.
    if (!kept && walking && current.walking) walkTo(walking);
  }
}
/** Hangs the chooser on one of the to-dos of a walk; behind the last it is at its end. */
function walkTo(walking: Walking) {
  const next = walking.todos[walking.at];
  current.walking = walking;
  if (!next) return void close();
  current.row = next.id;
  const row = rowElement(next.id);
  row?.scrollIntoView({ block: "nearest" });
  current.chooser = { kind: "minutes", todo: next, at: row ?? current.chooser!.at };
}
function skip() {
  if (current.walking) walkTo({ ...current.walking, at: current.walking.at + 1 });
}
const walk = computed(
  () => current.walking && `${current.walking.at + 1} of ${current.walking.todos.length}`,
);
type Deed = "skip" | "pause" | "resume" | "end-repeat";
async function deed(name: Deed) {
  const t = todo.value;
  await close();
  if (t) await actions.run(t.id, name);
}
async function setRepeat(choice: RepeatChoice) {
  const t = todo.value;
  await close();
  if (t) await actions.repeat(t, choice);
}
</script>

<template>
  <LayerMenu
    v-if="current.chooser && (todo || current.chooser.ids)"
    :key="current.walking?.at"
    :layer="current.chooser.kind"
    :at="current.chooser.at"
    @close="close"
  >
    <ListChooser
      v-if="current.chooser.kind === 'list'"
      :overview="overview"
      :todo="todo"
      @choose="setPlace"
    />
    <TagChooser
      v-else-if="current.chooser.kind === 'tags'"
      :overview="overview"
      :todo="todo"
      @turn="setTags"
    />
    <PersonChooser
      v-else-if="current.chooser.kind === 'person'"
      :overview="overview"
      :person="todo && (todo.person ?? null)"
      @choose="(person) => setField({ person })"
    />
    <PlaceChooser
      v-else-if="current.chooser.kind === 'place'"
      :place="todo && (todo.place ?? null)"
      @choose="(place) => setField({ place })"
    />
    <RepeatEditor
      v-else-if="current.chooser.kind === 'repeat' && todo"
      :key="todo.id"
      :repeat="todo.repeat"
      :date="todo.due ?? todo.plan ?? todo.start"
      :today="overview.today"
      :kept="todo.repeat !== undefined"
      @save="setRepeat"
      @skip="deed('skip')"
      @pause="deed('pause')"
      @resume="deed('resume')"
      @end="deed('end-repeat')"
      @cancel="close"
    />
    <EstimateChooser
      v-else-if="current.chooser.kind === 'minutes'"
      :todo="todo"
      :walk="walk"
      @choose="setMinutes"
      @skip="skip"
    />
    <PlanChooser
      v-else-if="current.chooser.kind === 'plan'"
      :overview="overview"
      :value="todo?.plan ?? null"
      @choose="(v) => set('plan', v)"
    />
    <MomentChooser
      v-else-if="current.chooser.kind === 'due' || current.chooser.kind === 'start'"
      :what="current.chooser.kind"
      :timed="current.chooser.kind === 'due'"
      :today="overview.today"
      :value="todo?.[current.chooser.kind] ?? null"
      :todo="current.chooser.kind === 'due' ? todo : undefined"
      @choose="(v) => setMoment(v)"
    />
  </LayerMenu>
</template>
