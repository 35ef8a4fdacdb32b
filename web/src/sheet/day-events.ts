import { useMenu } from "@/kit/menu";
import { useActions } from "@/server/actions";
import { happeningsOn } from "@/server/calendars";
import { useCurrent } from "@/state/current";
import { moreWords } from "@/words/calendars";

/** Opens the events of a day where they are seen: the only one at once, one of several from a menu. */
export function useDayEvents() {
  const menus = useMenu();
  const actions = useActions();
  const current = useCurrent();
  return (day: string, at: HTMLElement) =>
    actions.attempt(async () => {
      const { events, more } = await happeningsOn(day);
      if (!at.isConnected) return;
      const show = (event: (typeof events)[number]) => (current.event = { event, day, at });
      const [only, ...others] = events;
      if (only && !others.length && !more) return void show(only);
      menus.menu = {
        label: more ? `Events; ${moreWords(more)}` : "Events",
        at,
        items: events.map((e) => ({
          name: `${e.title}${e.from ? `, ${e.from.slice(11)}` : ""}`,
          act: () => void show(e),
        })),
      };
    });
}
