<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { computed } from "vue";
import { ask, client } from "@/server/client";
import { useServer } from "@/server/server";
import { copiesWords } from "@/words/files";

/** What daily copies there are, and how one is put back. */
const server = useServer();
const { data } = useQuery({
  queryKey: computed(() => ["copies", server.today]),
  queryFn: () => ask(() => client.GET("/api/copies")),
});
</script>

<template>
  <div v-if="data" class="copies">
    <p>{{ copiesWords(data.days, server.today) }}</p>
    <p v-if="data.days.length">
      They lie in <code>{{ data.folder }}</code>. With the program stopped,
      <code>tincup restore</code> and the name of one puts it in place; what was there is kept
      beside it.
    </p>
  </div>
</template>

<style scoped>
.copies {
  padding: 8px 0 12px;
}
p {
  color: var(--pencil);
  font-size: 14px;
  line-height: 20px;
  overflow-wrap: anywhere;
}
p:first-child {
  color: var(--ink);
}
code {
  padding: 1px 4px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  font-size: 13px;
}
</style>
