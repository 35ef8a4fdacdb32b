import type { components } from "@/server/schema";

type Place = components["schemas"]["Place"];

/** Where a place is, as people write it; "" where that is not known. */
export const middleWords = (place: Pick<Place, "middle">) =>
  (place.middle ?? "").replace("geo:", "").replace(",", ", ");

/** "38.7223, -9.1393, within 150 m", or what is missing. */
export function groundWords(place: Place): string {
  if (place.thing) return "a thing one connects to";
  return place.middle
    ? `${middleWords(place)}, within ${place.radius.toLocaleString("en-GB")} m`
    : "no position yet";
}

/** What the browser’s answer about positions means. */
export const allowedWords: Record<PermissionState | "none", string> = {
  granted: "This browser may say where you are.",
  denied:
    "This browser was told not to say where you are. Its own settings for this address change that.",
  prompt: "This browser will ask you.",
  none: "This browser tells no position here: that takes a secure page (https, or this machine itself).",
};

/** What noticing is, wherever it is offered. */
export const noticingWords =
  "Places are noticed while Tin Cup is in sight on this screen, and only while a reminder waits for one, or you look at what can be done here. Where you were is not kept.";
