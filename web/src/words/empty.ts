/** What a sheet says when it holds nothing. By touch nothing is dragged, and there are no digits. */
export function emptyWords(view: string, byTouch: boolean): { title: string; text: string } {
  switch (view) {
    case "cup":
      return {
        title: "The Cup is empty",
        text: "Whatever comes to mind goes in at the capture line, as it comes. Sort it later.",
      };
    case "today":
      return {
        title: "Nothing for today",
        text: `Nothing is due or planned for today. ${
          byTouch ? "Plan something for it from its menu" : "Drop something on today’s cup"
        }, or look at what comes.`,
      };
    case "overdue":
      return { title: "Nothing is late", text: "Every due that has passed was met or moved." };
    case "upcoming":
      return {
        title: "Nothing ahead",
        text: "To-dos with a due, a plan or a start in the next four weeks stand here.",
      };
    case "within-a-week":
      return { title: "Nothing due within a week", text: "A quiet week, as far as dues go." };
    case "done":
      return {
        title: "Nothing done yet",
        text: "What you tick stands here, the newest day first.",
      };
    case "bin":
      return { title: "The bin is empty", text: "What you delete stays here for 30 days." };
    case "ready":
      return {
        title: "Nothing is ready",
        text: "What is open waits on someone, is parked, is planned for later or has not started.",
      };
    case "waiting":
      return {
        title: "Nobody owes you anything",
        text: `Say “Crate sizes, waiting on Ines”. Someone new is offered: ${
          byTouch ? "tap the offer" : "Tab takes the offer"
        }. It stands here with the days you waited.`,
      };
    case "comes-round":
      return {
        title: "Nothing comes round",
        text: "Say “every Monday” or “every 2 weeks” in any line: what repeats stands here by its next date.",
      };
    case "open":
      return { title: "Nothing is open", text: "Everything was done, or nothing was put in yet." };
    case "projects":
      return {
        title: "No projects",
        text: "A to-do with subtasks is a project. It stands here with its progress and its next action.",
      };
    case "tag":
      return {
        title: "Nothing open carries it",
        text: "Put something in below, or say # and the tag’s name in any line.",
      };
    case "person":
      return {
        title: "Nothing with them just now",
        text: "Put something in below, or say “ask”, “waiting on” or “for” and their name in any line.",
      };
    case "place":
      return {
        title: "Nothing open is done there",
        text: "Put something in below, or choose “Where” on a to-do’s slip.",
      };
    case "here":
      return {
        title: "Nothing to do here",
        text: "What is done at a place of yours stands here while you are there.",
      };
    case "own":
      return { title: "Nothing matches just now", text: "What matches it stands here by itself." };
    case "shelf":
      return {
        title: "An empty shelf",
        text: "It holds no list yet: “New list…” in its menu makes one.",
      };
    case "list":
      return {
        title: "An empty list",
        text: `Put something in below, or ${byTouch ? "move something here from its menu" : "drop a row on its name"}.`,
      };
    default:
      return {
        title: "Nothing in this cup",
        text: byTouch
          ? "Put something in below, or plan it for then from its menu."
          : "Drop a row on it, or press its digit on a row, to plan something here.",
      };
  }
}
