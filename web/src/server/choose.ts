import { client, type Overview, send } from "./client";
import { useActions } from "./actions";
import { useServer } from "./server";
import { useToasts } from "@/kit/toasts";
import { own } from "./account";
import { dateOrderOf, weekStartOf } from "./browser";
import type { SettingName } from "@/words/settings";
import { during, type Values } from "./in-force";

const patching = { headers: { "Content-Type": "application/merge-patch+json" } };

/** Where a browser notes that it gave its zone and habits once. */
const given = own("settings-given");

/** Changes settings: at once here, kept by the server, the same in every window. */
export function useSettings() {
  const actions = useActions();
  const server = useServer();
  const toasts = useToasts();

  const keep = (body: Record<string, string | null>) =>
    send(() => client.PATCH("/api/settings", { ...patching, body }));

  /** Sets some; null sets one back to its default. Quietly where it shows by itself. */
  function choose(values: Partial<Record<SettingName, string | null>>, quietly = false) {
    const shown = Object.fromEntries(Object.entries(values).filter(([, v]) => v !== null));
    return actions.attempt(async () => {
      const done = await during(shown as Values, () => keep(values as Record<string, string>));
      if (!done.change.revision) return;
      server.refresh(done.change.revision, []);
      if (quietly) return;
      toasts.show({ text: done.change.says, undo: done.change.revision, sort: "settings" });
    });
  }

  /** What an earlier version kept in this browser. */
  function keptHere(): Values {
    const values: Values = {};
    for (const [kept, name] of [
      ["look", "look"],
      ["single-keys", "singleKeys"],
      ["reasons", "reasons"],
      ["urgent-days", "urgentDays"],
    ] as const) {
      const value = localStorage.getItem(own(kept));
      if (value) values[name] = value;
    }
    return values;
  }
  function forgetHere() {
    for (const kept of ["look", "single-keys", "reasons", "urgent-days"])
      localStorage.removeItem(own(kept));
  }

  /**
   * At the first start the zone, the order of day and month and the first weekday are those
   * of the browser; what was chosen in it before there were settings comes along. Says so.
   */
  async function begin(overview: Overview) {
    const values = keptHere();
    const first = !overview.settingsEver && !overview.zoneFixed && !localStorage.getItem(given);
    if (first) {
      values.zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
      values.dateOrder = dateOrderOf(navigator.language);
      values.weekStart = weekStartOf(navigator.language);
    }
    if (!Object.keys(values).length) return;
    localStorage.setItem(given, "yes");
    const done = await actions.attempt(() =>
      during(values, () => keep(values as Record<string, string>)),
    );
    if (!done) return;
    forgetHere();
    if (!done.change.revision) return;
    server.refresh(done.change.revision, []);
    if (first)
      toasts.show({
        text: `Taken from this browser: ${values.zone}, ${values.dateOrder === "day-first" ? "days before months" : "months before days"}, weeks from ${values.weekStart === "monday" ? "Monday" : "Sunday"}.`,
        undo: done.change.revision,
      });
  }

  return { choose, begin };
}
