import { createRouter, createWebHistory } from "vue-router";
import SheetPage from "@/sheet/SheetPage.vue";
import NotFound from "@/shell/NotFound.vue";
import { opening } from "@/state/opening-page";

/** Every address is a sheet; an open slip is the `slip` query beside it. */
export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: "/", redirect: () => opening() },
    {
      path: "/:view(cup|today|overdue|ready|waiting|upcoming|within-a-week|comes-round|projects|open|done|bin)",
      name: "view",
      component: SheetPage,
    },
    { path: "/tag/:tag", name: "tag", component: SheetPage },
    { path: "/person/:person", name: "person", component: SheetPage },
    { path: "/place/:place", name: "place", component: SheetPage },
    { path: "/here", name: "here", component: SheetPage },
    { path: "/search", name: "search", component: SheetPage },
    { path: "/view/new", component: () => import("@/builder/BuilderPage.vue") },
    { path: "/view/:own/edit", component: () => import("@/builder/BuilderPage.vue") },
    { path: "/view/:own", name: "own", component: SheetPage },
    { path: "/tags", component: () => import("@/sheet/TagsPage.vue") },
    { path: "/people", component: () => import("@/sheet/PeoplePage.vue") },
    { path: "/places", component: () => import("@/sheet/PlacesPage.vue") },
    { path: "/away", component: () => import("@/sheet/AwayPage.vue") },
    { path: "/settings", component: () => import("@/settings/SettingsPage.vue") },
    {
      path: "/week/:of(\\d{4}-\\d{2}-\\d{2})?",
      name: "week",
      component: () => import("@/week/WeekPage.vue"),
    },
    {
      path: "/review/:walk(daily|weekly|monthly)?",
      name: "review",
      component: () => import("@/review/ReviewPage.vue"),
    },
    { path: "/history", component: () => import("@/sheet/HistoryPage.vue") },
    { path: "/list/:list", name: "list", component: SheetPage },
    { path: "/shelf/:shelf", name: "shelf", component: SheetPage },
    {
      path: "/rail/:cup(\\d{4}-\\d{2}-\\d{2}|\\d{4}-W\\d{2}|\\d{4}-\\d{2}|parked)",
      name: "rail",
      component: SheetPage,
    },
    { path: "/:rest(.*)*", name: "not-found", component: NotFound },
  ],
});
