<script setup lang="ts">
import { computed, onMounted, reactive, ref, useTemplateRef } from "vue";
import { positionNow, positionTrouble } from "@/kit/position";
import { Refused } from "@/server/client";
import { type Place, tellPosition, usePlaceActions } from "@/server/here";
import { altered } from "@/server/seen";
import { middleWords } from "@/words/places";

/** The form of a place: a new one, or one that is there. */
const props = defineProps<{ place?: Place }>();
const emit = defineEmits<{ done: [] }>();
const actions = usePlaceActions();
const first = { name: "", middle: "", radius: 150 };
const before = props.place
  ? { name: props.place.name, middle: middleWords(props.place), radius: props.place.radius }
  : first;
/** As it was when the form was opened: what another window does meanwhile is not overwritten. */
const seen = props.place;
const values = reactive({ ...before });
const problem = reactive<{ field?: string; text: string }>({ text: "" });
const asking = ref(false);
const saving = ref(false);
const field = useTemplateRef("field");
onMounted(() => field.value?.focus());
const wrong = (name: string) => problem.field === name;
const id = computed(() => `place-${props.place?.id ?? "new"}`);

async function here() {
  if (asking.value) return;
  asking.value = true;
  Object.assign(problem, { field: undefined, text: "" });
  try {
    const fix = await positionNow();
    await tellPosition(fix); // one is there already when the place is
    values.middle = `${fix.latitude.toFixed(6)}, ${fix.longitude.toFixed(6)}`;
    if (fix.accuracy > values.radius && fix.accuracy <= 5000)
      Object.assign(problem, {
        field: "radius",
        text: `The device knows this to ${Math.round(fix.accuracy)} m. A radius of as much would be noticed more surely.`,
      });
  } catch (e) {
    Object.assign(problem, { field: "middle", text: positionTrouble(e) });
  } finally {
    asking.value = false;
  }
}

async function save() {
  if (saving.value) return;
  saving.value = true;
  Object.assign(problem, { field: undefined, text: "" });
  try {
    const body = { ...values, radius: Math.round(Number(values.radius)) };
    if (seen) {
      const changed = altered(before, body);
      if (Object.keys(changed).length) await actions.edit(seen, changed);
    } else await actions.add(body);
    emit("done");
  } catch (e) {
    Object.assign(problem, {
      field: e instanceof Refused ? e.problem.field : undefined,
      text: (e as Error).message,
    });
  } finally {
    saving.value = false;
  }
}
</script>

<template>
  <form
    :aria-label="place ? `The place ${place.name}` : 'A new place'"
    novalidate
    @submit.prevent="save"
    @keydown.esc.stop.prevent="emit('done')"
  >
    <div class="part wide">
      <label :for="`${id}-name`">Name</label>
      <input
        :id="`${id}-name`"
        ref="field"
        v-model="values.name"
        placeholder="The allotment"
        autocomplete="off"
        :aria-invalid="wrong('name')"
      />
    </div>
    <template v-if="!place?.thing">
      <div class="part wide">
        <label :for="`${id}-middle`">Position</label>
        <span class="beside">
          <input
            :id="`${id}-middle`"
            v-model="values.middle"
            placeholder="Latitude, longitude"
            autocomplete="off"
            spellcheck="false"
            :aria-invalid="wrong('middle')"
          />
          <button class="btn" type="button" :disabled="asking" @click="here">
            {{ asking ? "Asking…" : "Where I am now" }}
          </button>
        </span>
      </div>
      <div class="part">
        <label :for="`${id}-radius`">Within metres</label>
        <input
          :id="`${id}-radius`"
          v-model="values.radius"
          type="number"
          min="50"
          max="5000"
          step="any"
          :aria-invalid="wrong('radius')"
        />
      </div>
    </template>
    <p v-if="problem.text" role="alert">{{ problem.text }}</p>
    <div class="acts">
      <button class="btn main" type="submit" :disabled="saving">
        {{ place ? "Save" : "Add the place" }}
      </button>
      <button class="btn quiet" type="button" @click="emit('done')">Cancel</button>
    </div>
  </form>
</template>

<style scoped>
form {
  display: flex;
  flex-wrap: wrap;
  align-items: flex-end;
  gap: 10px 16px;
  width: 100%;
  padding: 12px 14px 14px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  background: var(--glaze);
}
.part {
  display: flex;
  flex-direction: column;
  gap: 2px;
}
.wide {
  flex: 1 1 240px;
  min-width: 0;
}
label {
  font-weight: 600;
}
.beside {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.beside input {
  flex: 1 1 170px;
}
input {
  min-width: 0;
  min-height: 32px;
  padding: 4px 8px;
  border: 2px solid var(--tin);
  border-radius: var(--corner);
  background: var(--enamel);
}
input[type="number"] {
  width: 110px;
}
input[aria-invalid="true"] {
  border-color: var(--copper);
}
p,
.acts {
  flex: 0 0 100%;
}
p {
  color: var(--copper);
  font-size: 14px;
}
.acts {
  display: flex;
  gap: 6px;
}
@media (pointer: coarse) {
  input,
  .btn {
    min-height: 40px;
  }
}
</style>
