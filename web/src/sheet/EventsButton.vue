<script setup lang="ts">
import { useTemplateRef } from "vue";
import { useMenu } from "@/kit/menu";
import { happeningsOn } from "@/server/calendars";
import { useCurrent } from "@/state/current";
import { useActions } from "@/server/actions";
import { moreWords } from "@/words/calendars";

/** The events of a day, in words; each can be opened. */
const props = defineProps<{ day: string; words: string }>();
const menus = useMenu();
const actions = useActions();
const current = useCurrent();
const button = useTemplateRef<HTMLElement>("button");

const open = () =>
  actions.attempt(async () => {
    const { events, more } = await happeningsOn(props.day);
    const at = button.value;
    if (!at) return;
    const show = (event: (typeof events)[number]) =>
      (current.event = { event, day: props.day, at });
    const [only, ...others] = events;
    if (only && !others.length && !more) return void show(only);
    menus.menu = {
      label: more ? `Events; ${moreWords(more)}` : "Events",
      at,
      items: events.map((e) => ({
        name: `${e.title}${e.from ? `, ${e.from.slice(11)}` : ""}`,
        act: () => void show(e),
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
    :title="`${words}. Open an event…`"
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
