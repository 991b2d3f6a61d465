import { useMemo, useState } from 'react';
import { useAlike } from '../jobs/useAlike';
import { useCells, useHead, useJob } from '../jobs/useJob';
import { inUse, isSparse } from './arrangement';
import { countByPicture, type RowOrder, rowsIn } from './rowOrder';

/** Which pictures and slots the bench shows, in which order, and whether as a matrix or as tiles of what is in use. */
export type BenchRows = ReturnType<typeof useBenchRows>;

export function useBenchRows() {
  const { pictures: all, slots } = useHead();
  const cells = useCells();
  const [words, setWords] = useState('');
  const [order, setOrder] = useState<{ by: RowOrder; toReview: ReadonlyMap<string, number> }>({
    by: 'added',
    toReview: new Map(),
  });
  const alike = useAlike();
  const pictures = useMemo(
    () => rowsIn(all, order.by, words, order.toReview, alike),
    [all, order, words, alike],
  );
  const [withSkipped, setWithSkipped] = useState(false);
  const sparse = useSparse();
  const tiles = useMemo(
    () => (sparse && !withSkipped ? inUse(pictures, slots, cells) : null),
    [sparse, withSkipped, pictures, slots, cells],
  );
  return {
    ...{ all, pictures, slots, cells, alike },
    /** The cells that are drawn as tiles; null where the bench is a matrix. */
    tiles,
    filter: {
      ...{ words, setWords, order: order.by, all: all.length },
      setOrder: (by: RowOrder) => setOrder({ by, toReview: countByPicture(all, slots, cells) }),
    },
    /** Whether skipped cells are shown; null where few are skipped and all are shown. */
    skipped: sparse ? { shown: withSkipped, show: setWithSkipped } : null,
  };
}

/** Whether the job is mostly skipped cells. It is asked anew when pictures or slots come or go, not while cells are worked off. */
function useSparse(): boolean {
  const { pictures, slots } = useHead();
  const cells = useCells();
  const reading = useJob((job) => job.reading);
  const asked = `${pictures.map((one) => one.picture.id).join()}/${slots.map((one) => one.address).join()}/${reading}`;
  const [known, setKnown] = useState({ asked: '', sparse: false });
  if (known.asked === asked) return known.sparse;
  const sparse = isSparse(pictures, slots, cells);
  setKnown({ asked, sparse });
  return sparse;
}
