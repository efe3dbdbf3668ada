/** What no file system allows in a name. */
const FORBIDDEN = /[\\/:*?"<>|]/g;
/** A large file is still being written when this returns. */
const KEPT_MS = 60_000;

/** A name that every file system allows. */
export function fileName(name: string): string {
  return name.replace(FORBIDDEN, ' ');
}

/** Hands a file to the browser to be saved. */
export function saveFile(name: string, content: Blob): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(content);
  link.download = fileName(name);
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), KEPT_MS);
}
