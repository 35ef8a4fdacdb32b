<script setup lang="ts">
import PathIcon from "@/kit/PathIcon.vue";
import { mdiDotsHorizontal } from "@mdi/js";
import type { Tag } from "@/server/client";
import ActionMenu from "@/kit/ActionMenu.vue";
import PlainTable from "@/kit/PlainTable.vue";
import SheetState from "@/kit/SheetState.vue";
import { useArrangement } from "@/server/arrangement";
import { useOverview } from "@/server/queries";

const arrangement = useArrangement();
const { data: overview } = useOverview();
const depth = (t: Tag) => t.name.split("/").length - 1;
const open = (n: number) => (n === 0 ? "nothing open" : `${n} open`);
</script>

<template>
  <PlainTable
    v-if="overview"
    name="Tags"
    text="Words that cut across lists. Type # and a name to make one."
  >
    <SheetState
      v-if="!overview.tags.length"
      title="No tags yet"
      text="Type # and a word when you put something in, such as #calls."
    />
    <ul>
      <li
        v-for="tag in overview.tags"
        :key="tag.id"
        :style="{ paddingLeft: `${depth(tag) * 24}px` }"
      >
        <router-link :to="`/tag/${tag.id}`"
          ><span class="tag" :style="{ borderColor: `var(--${tag.colour})` }">{{
            tag.name
          }}</span></router-link
        >
        <span class="quiet-fact">{{ open(tag.open) }}</span>
        <ActionMenu
          class="btn quiet"
          :label="`More for ${tag.name}`"
          :items="
            () => [
              { name: 'Name and colour…', act: () => arrangement.editTag(tag) },
              {
                name: 'Merge into another…',
                act: () => overview && arrangement.mergeTag(tag, overview),
              },
              { name: 'Remove the tag', act: () => arrangement.deleteTag(tag), apart: true },
            ]
          "
        >
          <PathIcon :path="mdiDotsHorizontal" :size="18" />
        </ActionMenu>
      </li>
    </ul>
  </PlainTable>
</template>

<style scoped>
.tag {
  border-bottom: 3px solid;
}
</style>
