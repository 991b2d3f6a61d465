import { type ReactNode, useEffect, useState } from 'react';
import { t } from '../texts/texts';

/** All files of what was dropped, folders gone through; each knows its path from there on. */
async function filesWithin(entries: readonly (FileSystemEntry | null)[]): Promise<File[]> {
  const files: File[] = [];
  const visit = async (entry: FileSystemEntry): Promise<void> => {
    if (entry.isFile) {
      const file = await new Promise<File>((done, fail) => (entry as FileSystemFileEntry).file(done, fail));
      Object.defineProperty(file, 'webkitRelativePath', { value: entry.fullPath.replace(/^\//, '') });
      files.push(file);
      return;
    }
    const reader = (entry as FileSystemDirectoryEntry).createReader();
    // A folder is told in parts.
    for (;;) {
      const part = await new Promise<FileSystemEntry[]>((done, fail) => reader.readEntries(done, fail));
      if (part.length === 0) return;
      for (const one of part) await visit(one);
    }
  };
  for (const entry of entries) if (entry) await visit(entry);
  return files;
}

/** Takes files that are dropped anywhere on the page or pasted. */
export function DropEverywhere({
  children,
  onFiles,
}: {
  children: ReactNode;
  onFiles: (files: Iterable<File>) => void;
}) {
  const [over, setOver] = useState(false);
  useEffect(() => {
    const carriesFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') ?? false;
    const enter = (event: DragEvent) => {
      if (!carriesFiles(event)) return;
      event.preventDefault();
      setOver(true);
    };
    const leave = (event: DragEvent) => {
      if (event.relatedTarget === null) setOver(false);
    };
    const drop = (event: DragEvent) => {
      if (!carriesFiles(event)) return;
      event.preventDefault();
      setOver(false);
      // What lies in dropped folders is asked for while the drop lasts.
      const entries = [...(event.dataTransfer?.items ?? [])].map((item) => item.webkitGetAsEntry());
      const files = [...(event.dataTransfer?.files ?? [])];
      if (entries.some((entry) => entry?.isDirectory)) void filesWithin(entries).then(onFiles);
      else onFiles(files);
    };
    const paste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])];
      if (files.length > 0) onFiles(files);
    };
    addEventListener('dragenter', enter);
    addEventListener('dragover', enter);
    addEventListener('dragleave', leave);
    addEventListener('drop', drop);
    addEventListener('paste', paste);
    return () => {
      removeEventListener('dragenter', enter);
      removeEventListener('dragover', enter);
      removeEventListener('dragleave', leave);
      removeEventListener('drop', drop);
      removeEventListener('paste', paste);
    };
  }, [onFiles]);
  return (
    <>
      {children}
      {over && (
        <div className="pointer-events-none fixed inset-3 z-50 grid place-items-center border-2 border-accent bg-sheet/85 text-title font-semibold">
          {t('app.releaseToAddTheseFiles')}
        </div>
      )}
    </>
  );
}
