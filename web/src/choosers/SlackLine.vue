<script setup lang="ts">
import type { components } from "@/server/schema";

/** The room that there would be until a due, said while it or the minutes are chosen. */
defineProps<{ slack?: components["schemas"]["Slack"] }>();
</script>

<template>
  <p class="slack" :class="{ short: slack?.short, late: slack?.late }" aria-live="polite">
    {{ slack?.words ?? "" }}
  </p>
</template>

<style scoped>
.slack {
  min-height: 20px;
  padding: 0 12px;
  color: var(--pencil);
  font-size: 13px;
  line-height: 18px;
}
.short {
  color: var(--copper);
  font-weight: 600;
}
.late {
  color: var(--madder);
}
</style>
