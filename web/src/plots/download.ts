/** Has the browser save a file; a text is one of JSON unless it comes as what it is. */
export function download(name: string, content: string | Blob): void {
  const blob = typeof content === 'string' ? new Blob([content], { type: 'application/json' }) : content;
  const address = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  URL.revokeObjectURL(address);
}
