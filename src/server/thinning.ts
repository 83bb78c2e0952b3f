/**
 * Which revisions to let go as they age: every one of the last 40; then the last of each hour for two days,
 * of each day for two months, and of each month after. Times are ISO; newest first.
 */
export function revisionsToDrop(
  revisions: readonly { readonly id: number; readonly savedAt: string }[],
  now: string,
): number[] {
  const hour = 3600e3;
  const age = (at: string) => Date.parse(now) - Date.parse(at);
  const seen = new Set<string>();
  const drop: number[] = [];
  revisions.forEach((r, i) => {
    const old = age(r.savedAt);
    const slot =
      old < 48 * hour ? r.savedAt.slice(0, 13) : old < 60 * 24 * hour ? r.savedAt.slice(0, 10) : r.savedAt.slice(0, 7);
    const first = !seen.has(slot);
    seen.add(slot);
    if (i >= 40 && !first) drop.push(r.id);
  });
  return drop;
}
