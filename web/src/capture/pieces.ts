import type { Chip, SentenceOffer } from "@/server/client";
import type { Read } from "@/server/reading";

/** A stretch of the capture line, and what was read in it. */
export interface Piece {
  text: string;
  read?: "yes" | "problem" | "offer";
}

/** The line cut where words were understood; what was typed since the reading stays plain. */
export function piecesOf(text: string, reading: Read | undefined, offers: SentenceOffer[]) {
  const out: Piece[] = [];
  let from = 0;
  const cut = (read: Piece["read"]) => (s: Chip["spans"][number]) => ({ ...s, read });
  const spans = [
    ...(reading?.chips ?? []).flatMap((c) => c.spans.map(cut(c.problem ? "problem" : "yes"))),
    ...offers.flatMap((o) => o.spans.map(cut("offer"))),
  ]
    .filter((s) => reading?.text.slice(0, s.end) === text.slice(0, s.end))
    .sort((a, b) => a.start - b.start);
  for (const s of spans) {
    if (s.start < from) continue; // another value of what was read
    out.push({ text: text.slice(from, s.start) });
    out.push({ text: text.slice(s.start, s.end), read: s.read });
    from = s.end;
  }
  out.push({ text: text.slice(from) });
  return out;
}
