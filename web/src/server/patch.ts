import type { Row, View } from "./client";

/** Puts an answer together from an earlier one, whose unchanged rows it only names. */
export function assemble(before: View, answer: View): View {
  const had = before.groups.flatMap((g) => g.rows);
  const groups = answer.groups.map((g) => {
    const rows: Row[] = [];
    let fresh = 0;
    for (let i = 0; i + 1 < (g.kept?.length ?? 0); i += 2) {
      const [from = 0, n = 0] = g.kept?.slice(i, i + 2) ?? [];
      if (from < 0) rows.push(...g.rows.slice(fresh, (fresh += n)));
      else rows.push(...had.slice(from, from + n));
    }
    return { ...g, kept: undefined, rows };
  });
  return { ...answer, groups };
}
