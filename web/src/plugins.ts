import { createPinia } from "pinia";
import { QueryClient, VueQueryPlugin } from "@tanstack/vue-query";
import type { App } from "vue";
import { createVuetify } from "vuetify";
import { aliases, mdi } from "vuetify/iconsets/mdi-svg";
import { router } from "@/router";

/** The palette; `iron` is the same enamelware left on the stove. */
const enamel = {
  enamel: "#F6F2E9",
  glaze: "#FFFDF8",
  rim: "#1F4E48",
  bar: "#1F4E48",
  fill: "#6E9A90",
  wash: "#E6EDE9",
  ink: "#22302E",
  pencil: "#5D6A67",
  tin: "#C9CFCB",
  copper: "#A8562A",
  madder: "#8A2E3E",
  moss: "#6B7F3A",
  slate: "#4F6475",
  plum: "#6E4A73",
  ochre: "#B0802A",
  sea: "#2F7480",
  clay: "#A0603F",
  stone: "#7A756B",
  berry: "#93405A",
};

const iron = {
  enamel: "#1B211F",
  glaze: "#232A28",
  rim: "#9CC4BA",
  bar: "#12302C",
  fill: "#4E7F75",
  wash: "#2E3936",
  ink: "#EDEAE1",
  pencil: "#A9B4B0",
  tin: "#46504D",
  copper: "#E0905F",
  madder: "#EE98A6",
  moss: "#A9BF70",
  slate: "#9DB3C6",
  plum: "#C39BC9",
  ochre: "#DDB05E",
  sea: "#72BBC8",
  clay: "#D69A78",
  stone: "#B7B1A5",
  berry: "#DC8CA6",
};

/** Vuetify's own names for the same colours. */
function named(c: typeof enamel) {
  return {
    ...c,
    background: c.enamel,
    surface: c.glaze,
    primary: c.rim,
    secondary: c.pencil,
    error: c.madder,
    "on-background": c.ink,
    "on-surface": c.ink,
    "on-primary": c.glaze,
  };
}

const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content;

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: { staleTime: Infinity, retry: 1, retryDelay: 400, refetchOnWindowFocus: false },
  },
});

export function installPlugins(app: App) {
  app.use(createPinia());
  app.use(router);
  app.use(VueQueryPlugin, { queryClient });
  app.use(
    createVuetify({
      icons: { defaultSet: "mdi", aliases, sets: { mdi } },
      theme: {
        defaultTheme: "enamel",
        cspNonce: nonce,
        themes: {
          enamel: { dark: false, colors: named(enamel) },
          iron: { dark: true, colors: named(iron) },
        },
      },
      defaults: { VMenu: { transition: false }, VTooltip: { transition: false } },
    }),
  );
}
