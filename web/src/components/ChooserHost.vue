<script setup lang="ts">
import { computed, nextTick } from "vue";
import type { Overview, RepeatChoice } from "@/api/client";
import { useActions } from "@/composables/actions";
import { useCurrent } from "@/composables/current";
import { useTodo } from "@/composables/queries";
import { rowElement } from "@/composables/row-keys";
import ListChooser from "./ListChooser.vue";
import MomentChooser from "./MomentChooser.vue";
import PersonChooser from "./PersonChooser.vue";
import PlanChooser from "./PlanChooser.vue";
import RepeatEditor from "./RepeatEditor.vue";
import TagChooser from "./TagChooser.vue";

/** The one chooser that is open, hung on the row or field that asked for it. */
defineProps<{ overview: Overview }>();
const current = useCurrent();
const actions = useActions();
const { data: fresh } = useTodo(computed(() => current.chooser?.todo.id ?? ""));
const todo = computed(() => {
  const shown = current.chooser?.todo;
  return fresh.value?.id === shown?.id ? fresh.value : shown;
});

async function close() {
  const chooser = current.chooser;
  current.chooser = undefined;
  await nextTick();
  const back = chooser?.at.isConnected ? chooser.at : rowElement(chooser?.todo.id);
  back?.focus();
}
async function set(field: "due" | "start" | "plan", value: string | null) {
  const t = todo.value;
  await close();
  if (!t || t[field] === value) return;
  if (field === "plan") await actions.plan(t, value);
  else await actions.edit(t, { [field]: value });
}
function setMoment(value: string | null) {
  const kind = current.chooser?.kind;
  if (kind === "due" || kind === "start") void set(kind, value);
}
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
  <v-menu
    v-if="current.chooser"
    :model-value="true"
    :target="current.chooser.at"
    :close-on-content-click="false"
    location="bottom end"
    offset="4"
    min-width="0"
    @update:model-value="close"
  >
    <div v-if="todo" class="floating" @keydown.esc.stop="close">
      <ListChooser
        v-if="current.chooser.kind === 'list'"
        :overview="overview"
        :todo="todo"
        @done="close"
      />
      <TagChooser v-else-if="current.chooser.kind === 'tags'" :overview="overview" :todo="todo" />
      <PersonChooser
        v-else-if="current.chooser.kind === 'person'"
        :overview="overview"
        :todo="todo"
        @done="close"
      />
      <RepeatEditor
        v-else-if="current.chooser.kind === 'repeat'"
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
      <PlanChooser
        v-else-if="current.chooser.kind === 'plan'"
        :overview="overview"
        :value="todo.plan"
        @choose="(v) => set('plan', v)"
      />
      <MomentChooser
        v-else
        :what="current.chooser.kind"
        :timed="current.chooser.kind === 'due'"
        :today="overview.today"
        :value="todo[current.chooser.kind]"
        @choose="(v) => setMoment(v)"
      />
    </div>
  </v-menu>
</template>
