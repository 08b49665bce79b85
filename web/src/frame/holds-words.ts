/** Whether what is shown holds every word that is sought, in any case and order. */
export function holdsWords(shown: string, sought: string): boolean {
  const all = shown.toLowerCase();
  return sought
    .toLowerCase()
    .split(/\s+/)
    .every((word) => all.includes(word));
}
