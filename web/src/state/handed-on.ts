import { settlesFor } from "@/kit/settling";
import { askedLately } from "@/server/client";

/**
 * Guards the keys where the to-do they act on goes by itself, since another window or time has
 * taken it away: a key that is pressed just then was not meant for its neighbour.
 */
export function useHandedOn() {
  let until = -Infinity;
  return {
    /** The keys are handed on to another to-do. Where this window asked for that, nothing is guarded. */
    handOn() {
      if (!askedLately()) until = performance.now() + settlesFor;
    },
    /** Whether keys that act do nothing for now. */
    settling: () => performance.now() < until,
  };
}
