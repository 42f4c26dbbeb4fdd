/** Hands a document to the browser's downloads as a JSON file. */
export function download(name: string, document_: unknown): void {
  const url = URL.createObjectURL(new Blob([`${JSON.stringify(document_, null, 2)}\n`], { type: 'application/json' }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}
