/** Lets the browser keep a file. */
export function download(name: string, content: BlobPart, type: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([content], { type }));
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

/** A name that every file system takes. */
export const fileName = (name: string): string => name.replace(/[^\p{L}\p{N}._-]+/gu, '-').toLowerCase();
