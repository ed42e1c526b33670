/** Hands a file to the browser's downloads. @param name - with its extension; what no file may be called is left out. */
export function save(name: string, content: string, type: string): void {
  const address = URL.createObjectURL(new Blob([content], { type }));
  const link = document.createElement('a');
  link.href = address;
  link.download = name.replace(/[^\p{L}\p{N} ._-]/gu, '').trim() || 'estrella';
  link.click();
  URL.revokeObjectURL(address);
}
