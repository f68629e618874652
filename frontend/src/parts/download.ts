/** Give a text to the reader as a file. */
export function download(name: string, text: string, type = 'application/json'): void {
  const address = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}

/** A name of a shoot as the name of a file. */
export function fileName(name: string): string {
  const plain = name
    .normalize('NFKD')
    .replace(/[^\w]+/g, '-')
    .replace(/^-+|-+$/g, '');
  return `${plain.toLowerCase() || 'shoot'}.bridle.json`;
}
