<script setup lang="ts">
import { ref } from "vue";
import { notify, usePermission } from "@/kit/notices";
import { play } from "@/kit/sound";
import { useActions } from "@/server/actions";
import { ask, client } from "@/server/client";
import { inForce } from "@/server/in-force";
import { permissionWords } from "@/words/bell";

/** Lets each way in which reminders come be tried, and the browser be asked. */
const { said, request } = usePermission();
const actions = useActions();
const answer = ref("");

async function sound() {
  if (!(await play(inForce.sound))) answer.value = "The browser keeps sounds off here.";
  else answer.value = inForce.sound === "none" ? "There is no sound: none is chosen." : "";
}
async function browser() {
  if (said.value === "default") await request();
  if (said.value !== "granted") return;
  await notify({
    tag: "try",
    title: "Tin Cup rings here",
    body: "Reminders come like this where no window is in sight.",
  });
  answer.value = "The browser was given a notification.";
}
async function desktop() {
  answer.value = "";
  const done = await actions.attempt(async () => {
    await ask(() => client.POST("/api/bell/try"));
    return true;
  });
  if (done) answer.value = "The desktop was given a notification.";
}
</script>

<template>
  <div class="try" role="group" aria-label="Try them">
    <span class="label">Try them</span>
    <button class="btn" @click="sound">The sound</button>
    <button class="btn" :disabled="said === 'denied' || said === 'none'" @click="browser">
      {{ said === "default" ? "By the browser: allow it…" : "By the browser" }}
    </button>
    <button class="btn" @click="desktop">On the desktop</button>
    <p>{{ permissionWords[said] }}</p>
    <p v-if="answer" role="status">{{ answer }}</p>
  </div>
</template>

<style scoped>
.try {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 8px;
  padding: 12px 0;
}
.label {
  margin-right: 8px;
  font-weight: 600;
}
p {
  flex-basis: 100%;
  color: var(--pencil);
  font-size: 14px;
}
</style>
