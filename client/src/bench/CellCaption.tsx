import type { Cell } from '../api/client';
import { weight } from '../design/figures';
import { explained, standingOf } from '../design/standing';
import { VerdictMark } from '../design/VerdictMark';
import { reasonWord } from '../domain/reasons';
import { t } from '../texts/texts';

/** True where words stand beside the mark in one line; about 6 px for a letter. */
const hasRoom = (words: string, width: number) => words.length * 6 + 34 <= width;

/** The verdict and the weight of a cell, or what it asks; where the pointer rests on it, what that means and why it is so. */
export function CellCaption({
  cell,
  looking,
  unwanted,
  elsewhere,
  width,
}: {
  cell: Cell;
  looking: boolean;
  unwanted: boolean;
  elsewhere: boolean;
  /** Of the cell; infinite where the caption has lines of its own. */
  width: number;
}) {
  const heaviest = Math.max(0, ...cell.files.map((file) => file.bytes ?? 0));
  const look = cell.toReview[0];
  const [standing, why] = [standingOf(cell), cell.codes.map(reasonWord)];
  return (
    <span className="contents" title={explained(standing, why)}>
      <VerdictMark verdict={standing} why={why} />
      {unwanted && !look ? (
        <span className="font-semibold">{t('bench.notAccepted')}</span>
      ) : look && hasRoom(reasonWord(look), width) ? (
        <span className="font-semibold">{reasonWord(look)}</span>
      ) : (
        <span
          className={look ? 'font-semibold underline decoration-dotted underline-offset-2' : 'text-ink-2'}
        >
          {cell.state === 'skipped'
            ? elsewhere
              ? t('bench.notHere')
              : t('bench.skipped')
            : cell.state === 'making'
              ? t('bench.making')
              : heaviest > 0
                ? weight(heaviest)
                : cell.state === 'waiting'
                  ? looking
                    ? t('bench.findingTheSubject')
                    : t('bench.waiting')
                  : t('bench.noFile')}
        </span>
      )}
    </span>
  );
}
