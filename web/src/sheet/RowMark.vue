<script setup lang="ts">
import type { Todo } from "@/server/client";
import { useActions } from "@/server/actions";
import TickBox from "@/kit/TickBox.vue";

/** What stands before a title: a box to tick, or the mark of a note. */
defineProps<{ todo: Todo; struck: boolean; isCurrent: boolean }>();
const actions = useActions();
</script>

<template>
  <span v-if="todo.isNote" class="note-mark" role="img" aria-label="Note" />
  <TickBox
    v-else
    :ticked="struck"
    :half="todo.status === 'in-process'"
    :crossed="todo.status === 'cancelled'"
    :label="struck ? `Open again: ${todo.title}` : `Tick: ${todo.title}`"
    :tabindex="isCurrent ? 0 : -1"
    @click.stop="actions.tick(todo)"
  />
</template>

<style scoped>
/* A slip of paper with a line of writing: nothing to tick. */
.note-mark {
  flex: none;
  width: 14px;
  height: 18px;
  margin: 0 2px;
  border: 1.5px solid var(--pencil);
  border-radius: 2px;
  background:
    linear-gradient(var(--pencil), var(--pencil)) 2px 4px / 7px 1.5px no-repeat,
    linear-gradient(var(--pencil), var(--pencil)) 2px 8px / 5px 1.5px no-repeat;
}
</style>
