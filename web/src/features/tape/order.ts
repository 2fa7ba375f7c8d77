/** A list with one entry a place further up or down. */
export function moved(list: string[], id: string, by: 1 | -1): string[] {
  const at = list.indexOf(id);
  const to = at + by;
  if (at < 0 || to < 0 || to >= list.length) return list;
  const next = [...list];
  next.splice(at, 1);
  next.splice(to, 0, id);
  return next;
}
