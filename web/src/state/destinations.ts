import { computed, type Ref } from "vue";
import type { Overview } from "@/server/client";
import { viewNames } from "@/words/names";

/** Somewhere to go: a view, a list, a shelf, a tag, a person or a page. */
export interface Destination {
  path: string;
  name: string;
  sort: "view" | "list" | "tag" | "person" | "page" | "template" | "archived list" | "shelf";
  /** The shelf of a list. */
  of?: string;
  colour?: string;
}

const pages: Destination[] = [
  { path: "/search", name: "Search", sort: "page" },
  { path: "/tags", name: "Tags", sort: "page" },
  { path: "/people", name: "People", sort: "page" },
  { path: "/places", name: "Places", sort: "page" },
  { path: "/here", name: "Here", sort: "page" },
  { path: "/history", name: "History", sort: "page" },
  { path: "/settings", name: "Settings", sort: "page" },
  { path: "/away", name: "Templates, archived and binned lists", sort: "page" },
  { path: "/view/new", name: "New view", sort: "page" },
];

/** Everything one can go to, as it is offered when nothing is typed. */
export function destinationsOf(o: Overview): Destination[] {
  const views: Destination[] = Object.entries(viewNames).map(([view, name]) => ({
    path: `/${view}`,
    name,
    sort: "view",
  }));
  return [
    ...views,
    ...o.views.map((v): Destination => ({ path: `/view/${v.id}`, name: v.name, sort: "view" })),
    ...o.shelves.map((s): Destination => ({ path: `/shelf/${s.id}`, name: s.name, sort: "shelf" })),
    ...o.shelves.flatMap((s) =>
      s.lists.map((l): Destination => ({
        path: `/list/${l.id}`,
        name: l.name,
        sort: "list",
        of: s.name,
        colour: l.colour,
      })),
    ),
    ...o.tags.map((t): Destination => ({
      path: `/tag/${t.id}`,
      name: t.name,
      sort: "tag",
      colour: t.colour,
    })),
    ...o.people.map((p): Destination => ({
      path: `/person/${p.id}`,
      name: p.name,
      sort: "person",
    })),
    ...pages,
    ...o.templates.map((l): Destination => ({
      path: `/list/${l.id}`,
      name: l.name,
      sort: "template",
    })),
    ...o.archived.map((l): Destination => ({
      path: `/list/${l.id}`,
      name: l.name,
      sort: "archived list",
    })),
  ];
}

/** How well letters fit a name: 0 begins with them, 1 has a word that does, 2 holds them. */
function fit(name: string, letters: string): number | undefined {
  const at = name.indexOf(letters);
  if (at <= 0) return at === 0 ? 0 : undefined;
  if (name.includes(` ${letters}`) || name.includes(`/${letters}`)) return 1;
  return 2;
}

/** Those whose names the letters fit, the best first; all where there are none. */
export function findNamed<T extends { name: string }>(all: T[], query: string): T[] {
  const letters = query.trim().toLowerCase();
  if (!letters) return all;
  const found: [T, number][] = [];
  for (const d of all) {
    const fits = fit(d.name.toLowerCase(), letters);
    if (fits !== undefined) found.push([d, fits]);
  }
  return found.sort((a, b) => a[1] - b[1]).map(([d]) => d);
}

export const useDestinations = (overview: Ref<Overview | undefined>) =>
  computed(() => (overview.value ? destinationsOf(overview.value) : []));
