<script setup lang="ts">
import SheetState from "@/kit/SheetState.vue";
</script>

<template>
  <SheetState title="Nothing at this address" text="The page you asked for is not part of Tin Cup.">
    <router-link class="btn main" to="/today">Go to Today</router-link>
  </SheetState>
</template>
