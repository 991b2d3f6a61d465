import type { ReactNode } from 'react';
import { addresses } from '../api/client';
import { Divider, useDivider } from '../design/Divider';
import { DividerLabel } from '../design/DividerLabel';
import { weight } from '../design/figures';
import { Sheet } from '../design/Sheet';
import { useElementSize } from '../design/useElementSize';
import { t } from '../texts/texts';
import type { FileOf } from './files';

/** Both files of a picture over each other, with a divider between them. */
export function BeforeAfter({
  folder,
  path,
  files,
  open,
  onOpen,
  trigger,
}: {
  folder: string;
  path: string;
  files: { before: FileOf; after: FileOf };
  open: boolean;
  onOpen: (open: boolean) => void;
  trigger: ReactNode;
}) {
  return (
    <Sheet title={path} width="full" trigger={trigger} open={open} onOpenChange={onOpen}>
      {open && <Both folder={folder} path={path} files={files} />}
    </Sheet>
  );
}

function Both({
  folder,
  path,
  files,
}: {
  folder: string;
  path: string;
  files: { before: FileOf; after: FileOf };
}) {
  const [room, size] = useElementSize<HTMLDivElement>();
  const [share, setShare] = useDivider();
  const at = (size?.width ?? 0) * share;
  const image = (one: FileOf, words: string) => (
    <img
      src={addresses.folderPreview(folder, path, one.file, 1800, one.version)}
      alt={words}
      draggable={false}
      className="absolute inset-0 h-full w-full object-contain select-none"
    />
  );
  return (
    <div
      ref={room}
      className="relative mt-3 bg-sheet-2 h-[min(66vh,720px)] overflow-hidden"
      data-testid="before-after"
    >
      {image(files.after, t('folders.after'))}
      {size && (
        <>
          <div
            className="absolute inset-0 bg-sheet-2"
            style={{ clipPath: `inset(0 ${size.width - at}px 0 0)` }}
          >
            {image(files.before, t('folders.before'))}
          </div>
          <Divider share={share} onShare={setShare} from={0} to={size.width} />
          <DividerLabel
            side="left"
            text={t('folders.beforeBytes', { bytes: weight(files.before.bytes) })}
            at={at}
            shown={at > 130}
          />
          <DividerLabel
            side="right"
            text={t('folders.afterBytes', { bytes: weight(files.after.bytes) })}
            at={size.width - at}
            shown={size.width - at > 130}
          />
        </>
      )}
    </div>
  );
}
