<script setup lang="ts">
import { computed, toRef } from "vue";
import { client, type Chip, send, type Todo, type TodoPatch } from "@/server/client";
import { useActions } from "@/server/actions";
import { reword, useReading } from "@/server/reading";
import { chipLabels } from "@/words/fields";

/** Words in an edited title that could be fields: offered, and not taken unasked. */
const props = defineProps<{ todo: Todo; text: string }>();
const emit = defineEmits<{ taken: [title: string] }>();
const actions = useActions();
const changed = computed(() => (props.text === props.todo.title ? "" : props.text));
const reading = useReading(changed);
const offers = computed(() => {
  const r = reading.value;
  const made = (c: Chip) =>
    (c.field === "list" && r?.newList) || (c.field === "person" && r?.newPerson);
  return (r?.chips ?? []).filter((c) => !c.problem && !made(c));
});
const text = toRef(props, "text");

/** Takes one chip out of the title and into its field. */
async function take(chip: Chip) {
  const r = reading.value;
  if (!r || r.text !== text.value) return;
  // A person's words stay where they are part of the title.
  const title = chip.field === "person" ? r.text : reword(r.text, chip.spans, "");
  const body: TodoPatch = { title };
  if (chip.field === "due") body.due = r.due ?? null;
  if (chip.field === "start") body.start = r.start ?? null;
  if (chip.field === "plan") body.plan = r.plan ?? null;
  if (chip.field === "priority") body.priority = r.priority;
  if (chip.field === "list") body.list = r.list ?? null;
  if (chip.field === "estimate") body.estimate = r.estimate ?? null;
  if (chip.field === "person" && r.person) body.person = { id: r.person.id, role: r.person.role };
  await actions.attempt(async () => {
    actions.took(await actions.patch(props.todo, body));
    emit("taken", title);
    if (chip.field === "tag") await actions.tag(props.todo, [chip.value], []);
    if (chip.field === "reminder") await actions.remind(props.todo, r.reminders, []);
    if (chip.field === "repeat" && r.repeat) {
      const { rule, anchor, lead } = r.repeat;
      actions.took(
        await send((header) =>
          client.POST("/api/todos/{id}/repeat", {
            params: { path: { id: props.todo.id }, header },
            body: { rule, anchor, lead, first: r.due?.slice(0, 10) ?? null },
          }),
        ),
      );
    }
  });
}
</script>

<template>
  <div v-if="offers.length" class="offers" role="group" aria-label="Take from the title">
    <button
      v-for="chip in offers"
      :key="chip.field + chip.words"
      class="offer"
      :data-field="chip.field"
      @mousedown.prevent
      @click.stop="take(chip)"
    >
      Take “{{ chip.words }}” as <span class="label">{{ chipLabels[chip.field] }}</span>
      {{ chip.value }}
    </button>
  </div>
</template>

<style scoped>
.offers {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 6px 0;
}
.offer {
  padding: 2px 8px;
  border: 1px dashed var(--rim);
  border-radius: var(--corner);
  background: var(--glaze);
  font-size: 14px;
  text-align: left;
  cursor: pointer;
}
.offer:hover {
  background: var(--wash);
}
.label {
  color: var(--pencil);
}
</style>
