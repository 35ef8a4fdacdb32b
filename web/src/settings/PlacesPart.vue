<script setup lang="ts">
import { useAllowed } from "@/kit/position";
import { useNoticing } from "@/server/here";
import { allowedWords, noticingWords } from "@/words/places";

/** Whether this browser notices where the person is, and the way to their places. */
const noticing = useNoticing();
const allowed = useAllowed();
</script>

<template>
  <section id="places" aria-labelledby="places-head">
    <h2 id="places-head">Places</h2>
    <label>
      <input v-model="noticing" type="checkbox" :disabled="allowed === 'none'" />
      Notice in this browser at which of my places I am
    </label>
    <p>{{ noticingWords }}</p>
    <p :class="{ refused: allowed === 'denied' || allowed === 'none' }">
      {{ allowedWords[allowed] }}
    </p>
    <router-link class="btn" to="/places">My places</router-link>
  </section>
</template>

<style scoped src="./part.css"></style>
<style scoped>
label {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 40px;
  margin-top: 6px;
  font-weight: 600;
}
.refused {
  color: var(--copper);
}
.btn {
  display: inline-flex;
  align-items: center;
  margin-top: 12px;
}
</style>
