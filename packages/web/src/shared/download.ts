/** Hands a file to the browser's downloads. */
export function download(content: Blob, name: string): void {
  const url = URL.createObjectURL(content);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  // The download has taken its own copy by the next turn.
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}

/** A canvas as a PNG file. */
export function downloadPng(canvas: HTMLCanvasElement, name: string): void {
  canvas.toBlob((blob) => blob && download(blob, `${name}.png`), 'image/png');
}
