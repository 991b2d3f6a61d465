import { type VirtualItem } from '@tanstack/react-virtual';
import { memo } from 'react';
import { addresses, type JobPicture, type JobSlot } from '../api/client';
import { weight } from '../design/figures';
import { t } from '../texts/texts';
import { BenchCell } from './CellView';
import { type View } from './layout';
import { Rest } from './rest';
import type { At } from './useSelection';

export const headWidth = 148;

/** One picture: its head and those of its cells that are on screen. Drawn again only when it changes itself. */
export const BenchRow = memo(function BenchRow({
  picture,
  index,
  alike,
  top,
  height,
  width,
  slots,
  shown,
  view,
  active,
  isSelected,
  rest,
  onSelect,
}: {
  picture: JobPicture;
  index: number;
  /** The pictures that are alike to it, itself among them. */
  alike: readonly string[];
  top: number;
  height: number;
  width: number;
  slots: readonly JobSlot[];
  shown: readonly VirtualItem[];
  view: View;
  /** The column of the active cell, if it is in this row. */
  active: number | null;
  isSelected: (row: number, column: number) => boolean;
  rest: Rest;
  onSelect: (from: At, to: At) => void;
}) {
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      className="absolute left-0 border-b border-line/60"
      style={{ top, height, width }}
    >
      <div
        role="rowheader"
        className={`sticky left-0 z-20 h-full border-r border-line bg-sheet ${alike.length > 0 ? 'border-l-4 border-l-accent' : ''}`}
        style={{ width: headWidth }}
      >
        <RowHead
          picture={picture}
          alike={alike}
          height={height}
          onSelect={() => onSelect({ row: index, column: 0 }, { row: index, column: slots.length - 1 })}
        />
      </div>
      {shown.map((column) => (
        <BenchCell
          key={slots[column.index]!.address}
          id={`cell-${index}-${column.index}`}
          picture={picture}
          slot={slots[column.index]!}
          view={view}
          left={headWidth + column.start}
          width={column.size}
          height={height}
          rest={rest}
          active={active === column.index}
          selected={isSelected(index, column.index)}
        />
      ))}
    </div>
  );
});

function RowHead({
  picture,
  alike,
  height,
  onSelect,
}: {
  picture: JobPicture;
  alike: readonly string[];
  height: number;
  onSelect: () => void;
}) {
  return (
    <button
      type="button"
      tabIndex={-1}
      onClick={onSelect}
      className="flex h-full w-full flex-col justify-center gap-0.5 overflow-hidden px-2 py-1 text-left hover:bg-sheet-2"
      title={picture.picture.name}
    >
      <img
        src={addresses.preview(picture.picture.id, picture.shown, 480)}
        alt=""
        decoding="async"
        // The picture gives way to its name, and is as large as that leaves it.
        className="min-h-6 max-w-full shrink object-contain object-left"
        style={{ height: Math.max(24, height - (alike.length > 0 ? 58 : 44)) }}
      />
      <span className="w-full shrink-0 leading-4 font-medium wrap-anywhere">
        {picture.words ?? picture.picture.name}
      </span>
      <span className="w-full shrink-0 text-note leading-[13px] text-ink-2">
        {picture.parts
          ? t('bench.partsSideBySide', { parts: picture.parts.length })
          : `${picture.width}×${picture.height}, ${weight(picture.picture.bytes)}`}
      </span>
      {alike.length > 0 && (
        <span className="w-full shrink-0 text-note leading-[13px] text-accent">
          {t('bench.alikeOf', { number: alike.indexOf(picture.picture.id) + 1, of: alike.length })}
        </span>
      )}
    </button>
  );
}
