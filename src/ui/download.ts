/** Hands a text to the browser as a file. */
export function download(name: string, mime: string, text: string): void {
  const address = URL.createObjectURL(new Blob([text], { type: `${mime};charset=utf-8` }));
  const link = document.createElement("a");
  link.href = address;
  link.download = name;
  link.click();
  URL.revokeObjectURL(address);
}
