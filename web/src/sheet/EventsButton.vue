<script setup lang="ts">
import { useTemplateRef } from "vue";
import { useMenu } from "@/kit/menu";
import { happeningsOn, useCalendarActions } from "@/server/calendars";
import { useActions } from "@/server/actions";
import { moreWords } from "@/words/calendars";

/** What happens on a day, in words; each event may become a to-do. */
const props = defineProps<{ day: string; words: string }>();
const menus = useMenu();
const actions = useActions();
const { putIn } = useCalendarActions();
const button = useTemplateRef<HTMLElement>("button");

const open = () =>
  actions.attempt(async () => {
    const { events, more } = await happeningsOn(props.day);
    if (!button.value) return;
    menus.menu = {
      label: more ? `Make a to-do of an event; ${moreWords(more)}` : "Make a to-do of an event",
      at: button.value,
      items: events.map((e) => ({
        name: `Make a to-do of “${e.title}”${e.from ? `, ${e.from.slice(11)}` : ""}`,
        act: () => void putIn(e, props.day),
      })),
    };
  });
</script>

<template>
  <button
    ref="button"
    type="button"
    class="events"
    aria-haspopup="menu"
    :title="`${words}. Make a to-do of an event…`"
    @click.stop="open"
  >
    {{ words }}
  </button>
</template>

<style scoped>
.events {
  flex: 1 1 0;
  min-width: 0;
  min-height: 24px;
  overflow: hidden;
  color: var(--pencil);
  font-size: 14px;
  text-align: left;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: pointer;
}
.events:hover {
  text-decoration: underline;
}
@media (max-width: 760px) {
  .events {
    display: block;
    width: 100%;
    min-height: 40px;
    border-bottom: 1px solid color-mix(in srgb, var(--tin) 55%, transparent);
  }
}
</style>
