/** What a row's key or a field of the slip opens. */
export const chooserKinds = [
  "list",
  "due",
  "start",
  "plan",
  "tags",
  "repeat",
  "person",
  "place",
  "minutes",
] as const;

/** Everything that opens above the page and takes input: each is in LayerMenu or LayerDialog. */
export const layers = [
  ...chooserKinds,
  "menu",
  "event",
  "bell",
  "later",
  "chip",
  "narrow",
  "hours",
  "finder",
  "keys",
  "ask",
  "make-room",
  "paste",
  "import",
] as const;
export type Layer = (typeof layers)[number];
