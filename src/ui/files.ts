/** Gives a file to the browser to be saved. */
export function download(name: string, content: BlobPart, type: string): void {
  const url = URL.createObjectURL(new Blob([content], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}

function ask(accept: string, multiple: boolean): Promise<File[]> {
  return new Promise((resolve) => {
    const input = document.createElement('input');
    input.type = 'file';
    input.accept = accept;
    input.multiple = multiple;
    input.onchange = () => resolve(Array.from(input.files ?? []));
    input.oncancel = () => resolve([]);
    input.click();
  });
}

/** Asks for a file with the browser's own dialog; null when the player changes their mind. */
export const askForFile = async (accept: string): Promise<File | null> =>
  (await ask(accept, false))[0] ?? null;

/** Asks for one file or several; none when the player changes their mind. */
export const askForFiles = (accept: string): Promise<File[]> => ask(accept, true);
