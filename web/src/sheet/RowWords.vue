<script setup lang="ts">
import type { Overview, Row } from "@/server/client";
import { useLook } from "@/state/look";
import type { Fact } from "@/words/row";
import MarkedText from "./MarkedText.vue";
import RowFacts from "./RowFacts.vue";

/** What a row says: its title, quietly what is set, and why it was found or stands here. */
defineProps<{ row: Row; facts: Fact[]; overview: Overview }>();
const look = useLook();
</script>

<template>
  <span class="words">
    <span class="title" :title="row.todo.title">
      <span v-if="row.path?.length" class="path">{{ row.path.join(" / ") }} / </span
      ><span class="unseen">{{
        row.todo.priority === "none" ? "" : `Priority ${row.todo.priority}. `
      }}</span
      ><MarkedText v-if="row.found" :text="row.todo.title" :spans="row.found.title" /><template
        v-else
        >{{ row.todo.title }}</template
      >
    </span>
    <RowFacts :facts="facts" :tags="row.todo.tags" :overview="overview" />
    <span v-if="row.why && look.reasons" class="excerpt">{{ row.why }}</span>
    <span v-else-if="row.found?.notes" class="excerpt"
      ><MarkedText :text="row.found.notes" :spans="row.found.inNotes"
    /></span>
    <span v-else-if="row.moved && row.todo.outcome" class="excerpt">{{ row.todo.outcome }}</span>
    <span v-else-if="row.found?.files" class="excerpt"
      >file: <MarkedText :text="row.found.files" :spans="row.found.inFiles"
    /></span>
    <span v-else-if="row.found?.place" class="excerpt"
      >at <MarkedText :text="row.todo.place ?? ''" :spans="row.found.place"
    /></span>
  </span>
</template>

<style scoped>
.excerpt {
  flex: 0 0 100%;
  overflow: hidden;
  white-space: nowrap;
  color: var(--pencil);
  font-size: 13px;
  text-overflow: ellipsis;
}
/* The facts go to a line below where the title leaves them no room. */
.words {
  display: flex;
  flex: 1;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 16px;
  padding-block: 4px;
  min-width: 0;
}
.title {
  min-width: 0;
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  unicode-bidi: plaintext;
}
.struck .title {
  color: var(--pencil);
  text-decoration: line-through;
}
.dimmed .title {
  color: var(--pencil);
}
.path {
  color: var(--pencil);
}
/* What does not fit goes as a whole: it wraps out of sight. */
.facts {
  display: flex;
  flex: 1 0 auto;
  flex-wrap: wrap;
  justify-content: flex-end;
  max-width: 100%;
  gap: 20px 12px;
  min-width: 0;
  max-height: 24px;
  overflow: hidden;
  color: var(--pencil);
  font-size: 14px;
  white-space: nowrap;
}
@media (max-width: 760px) {
  .title {
    flex: 1 0 100%;
    padding: 6px 14px 0 0;
    white-space: normal;
  }
  .facts {
    flex: 1 0 100%;
    justify-content: flex-start;
  }
  .facts:empty {
    display: none;
  }
  /* A project says where it stands, on two lines where it must. */
  .standing .facts {
    row-gap: 2px;
    max-height: 46px;
  }
}
</style>
