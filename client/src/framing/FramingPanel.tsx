import { t } from '../texts/texts';
import { ActiveSlot } from './ActiveSlot';
import { SlotList } from './SlotList';
import type { FramingState } from './useFraming';

/** All slots of the picture at a glance, in two columns, and the active one in figures. */
export function FramingPanel({ framing }: { framing: FramingState }) {
  return (
    <aside className="flex min-h-0 flex-col border-l border-line bg-sheet" aria-label={t('framing.slots')}>
      <SlotList framing={framing} />
      <ActiveSlot framing={framing} />
    </aside>
  );
}
