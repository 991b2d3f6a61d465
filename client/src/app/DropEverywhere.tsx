import { type ReactNode, useEffect, useState } from 'react';

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
      onFiles([...(event.dataTransfer?.files ?? [])]);
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
        <div className="pointer-events-none fixed inset-3 z-50 grid place-items-center border-2 border-accent bg-sheet/85 text-lg font-semibold">
          Let go to read these files in
        </div>
      )}
    </>
  );
}
