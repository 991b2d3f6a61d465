import { useSearchParams } from 'wouter';
import { Notice } from '../design/Notice';
import { JobBar } from '../jobs/JobBar';
import { useHead } from '../jobs/useJob';
import { OverlayScreen } from '../overlay/OverlayScreen';
import { t } from '../texts/texts';
import { Framing } from './Framing';
import { PairScreen } from './PairScreen';

/** One picture and all its slots: frames are set in the slots, marks on the picture. */
export function FramingScreen({ pictureId }: { pictureId: string }) {
  const head = useHead();
  const picture = head.pictures.find((one) => one.picture.id === pictureId);
  const [search] = useSearchParams();
  const slot = head.slots.find((one) => one.address === search.get('slot')) ?? head.slots[0];
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)]">
      <div>
        <JobBar stage="framing" at={{ picture: pictureId, slot: slot?.address }} />
      </div>
      {!picture ? (
        <Notice>{t('framing.thisPictureIsNotInThe')}</Notice>
      ) : !slot ? (
        <Notice>{t('framing.theJobHasNoSlotsYet')}</Notice>
      ) : search.has('over') ? (
        <OverlayScreen key={`${picture.picture.id}/${slot.address}`} picture={picture} slot={slot} />
      ) : picture.parts ? (
        <PairScreen key={picture.picture.id} picture={picture} slot={slot} />
      ) : (
        <Framing key={picture.picture.id} picture={picture} slot={slot} />
      )}
    </div>
  );
}
