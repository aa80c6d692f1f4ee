/** Bytes of a file's name that every common file system takes, with room for an ending. */
const MOST_BYTES = 180;
/** Names that Windows keeps for devices. @source Microsoft, "Naming files, paths, and namespaces" */
const DEVICES = /^(con|prn|aux|nul|com\d|lpt\d)$/i;

/**
 * The name of a file for something with a name in any script: its letters and
 * figures as they are, all else a dash.
 * @param name as a document holds it
 * @param otherwise where nothing of it can stand
 */
export function fileNameOf(name: string, otherwise = 'system'): string {
  const plain = name
    .normalize('NFC')
    .toLowerCase()
    .replace(/[^\p{L}\p{M}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '');
  const encoder = new TextEncoder();
  const kept = Array.from(plain)
    .reduce(
      ({ text, bytes }, sign) => {
        const more = bytes + encoder.encode(sign).length;
        return { text: more <= MOST_BYTES ? text + sign : text, bytes: more };
      },
      { text: '', bytes: 0 },
    )
    .text.replace(/-+$/, '');
  if (kept === '') return otherwise;
  return DEVICES.test(kept) ? `${kept}-${otherwise}` : kept;
}
