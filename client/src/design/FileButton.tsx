import { useRef } from 'react';
import { Button } from './Button';

/** Asks for a file of the disk. */
export function FileButton({
  name,
  accept,
  onFile,
  className = '',
}: {
  name: string;
  /** Endings, with commas. */
  accept: string;
  onFile: (file: File) => void;
  className?: string;
}) {
  const chooser = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button className={`h-7! px-2! ${className}`} onClick={() => chooser.current?.click()}>
        {name}
      </Button>
      <input
        ref={chooser}
        type="file"
        accept={accept}
        className="hidden"
        aria-label={name}
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) onFile(file);
        }}
      />
    </>
  );
}
