/** The entry that a list has beside all that it had before; none where it is another list. */
export function addedTo(before: readonly string[], now: readonly string[]): string | undefined {
  if (now.length !== before.length + 1 || before.some((id) => !now.includes(id))) return undefined;
  return now.find((id) => !before.includes(id));
}
