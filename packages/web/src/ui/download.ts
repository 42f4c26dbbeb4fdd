/** Hands a file to the browser's downloads. */
export function downloadBlob(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}

/** Hands a document to the browser's downloads as a JSON file. */
export function download(name: string, document_: unknown): void {
  downloadBlob(name, new Blob([`${JSON.stringify(document_, null, 2)}\n`], { type: 'application/json' }));
}

/** Hands bytes to the browser's downloads. */
export function downloadBytes(name: string, bytes: Uint8Array): void {
  downloadBlob(name, new Blob([new Uint8Array(bytes)], { type: 'application/octet-stream' }));
}

/** Hands a text to the browser's downloads. */
export function downloadText(name: string, text: string, type: string): void {
  downloadBlob(name, new Blob([text], { type: `${type};charset=utf-8` }));
}
