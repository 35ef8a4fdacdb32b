<script setup lang="ts">
import { useTemplateRef } from "vue";
import { useCurrent } from "@/state/current";
import { useSettings } from "@/server/choose";
import { inForce } from "@/server/in-force";
import { keyHelp } from "@/words/keys";
import LayerDialog from "@/kit/LayerDialog.vue";

const current = useCurrent();
const dialog = useTemplateRef("dialog");
const { choose } = useSettings();
const turnKeys = (on: boolean) => choose({ singleKeys: on ? "on" : "off" }, true);
const groups = [
  "On a row",
  "In a list",
  "In columns",
  "In the week",
  "In a review",
  "Many at once",
  "Everywhere",
  "Go to",
] as const;
</script>

<template>
  <LayerDialog
    ref="dialog"
    layer="keys"
    class="help"
    labelledby="keys-title"
    @close="current.helping = false"
  >
    <header>
      <h1 id="keys-title">Keys</h1>
      <button class="btn" @click="dialog?.close()">Close</button>
    </header>
    <label
      ><input
        type="checkbox"
        :checked="inForce.singleKeys === 'on'"
        @change="turnKeys(($event.target as HTMLInputElement).checked)"
      />
      Single keys act, outside text fields</label
    >
    <div class="columns">
      <section v-for="group in groups" :key="group">
        <h2>{{ group }}</h2>
        <dl>
          <template v-for="k in keyHelp.filter((h) => h.group === group)" :key="k.does">
            <dt>
              <span v-for="key in k.keys" :key="key" class="key">{{ key }}</span>
            </dt>
            <dd>{{ k.does }}</dd>
          </template>
        </dl>
      </section>
    </div>
  </LayerDialog>
</template>

<style scoped>
.help {
  width: min(960px, calc(100vw - 24px));
  overflow-y: auto;
}
header {
  display: flex;
  justify-content: space-between;
}
h1 {
  font-size: 22px;
  line-height: 32px;
}
h2 {
  margin: 12px 0 4px;
  font-size: 15px;
}
label {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 24px;
  color: var(--pencil);
}
input {
  width: 16px;
  height: 16px;
  accent-color: var(--rim);
}
.columns {
  columns: 260px;
  column-gap: 28px;
}
section {
  break-inside: avoid;
}
section:first-child h2 {
  margin-top: 0;
}
dl {
  display: grid;
  grid-template-columns: 92px 1fr;
  gap: 6px 10px;
}
dt {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  align-items: flex-start;
}
</style>
