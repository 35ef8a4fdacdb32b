<script setup lang="ts">
import { useDayEvents } from "./day-events";

/** The events of a day, in words; each can be opened. */
defineProps<{ day: string; words: string }>();
const open = useDayEvents();
</script>

<template>
  <button
    type="button"
    class="events"
    aria-haspopup="menu"
    :title="`${words}. Open an event…`"
    @click.stop="open(day, $event.currentTarget as HTMLElement)"
  >
    {{ words }}
  </button>
</template>

<style scoped>
.events {
  flex: 1 1 0;
  min-width: 110px;
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
