/** Give something to the reader as a file. */
export function download(name: string, content: Blob | string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(
    typeof content === 'string' ? new Blob([content], { type: 'application/json' }) : content
  );
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
}

/** A name of a shoot as the beginning of a file's name. */
export function plainName(name: string): string {
  const plain = name
    .normalize('NFKD')
    .replace(/[^\w]+/g, '-')
    .replace(/^-+|-+$/g, '');
  return plain.toLowerCase() || 'shoot';
}

/** A plan file's name. */
export const fileName = (name: string): string => `${plainName(name)}.bridle.json`;
