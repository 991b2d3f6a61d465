import { DropdownMenu } from 'radix-ui';
import { MenuContent } from '../design/Menu';
import { t } from '../texts/texts';
import { initials } from './actors';
import { type PersonInJob } from './Together';
import { useHead, useJob } from './useJob';

const shown = 4;

/** Two letters for somebody who is in the job as well. */
export function Initials({ person }: { person: PersonInJob }) {
  return (
    <span className="grid h-5 min-w-6 place-items-center rounded-sm border border-accent bg-sheet px-1 text-note leading-none font-semibold text-accent">
      {person.name === '' ? '+' : initials(person.name)}
    </span>
  );
}

/** Who else has the job open, where they are, and what they changed last; nothing where nobody else is there. */
export function OthersHere() {
  const others = useJob((job) => job.together.others);
  const notes = useJob((job) => job.together.notes);
  if (others.length === 0) return null;
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        aria-label={t('jobs.othersHere', { count: others.length })}
        title={others.map(nameOf).join(', ')}
        className="flex h-7 shrink-0 items-center gap-0.5 rounded-md px-1 hover:bg-sheet-2"
        data-testid="others"
      >
        {others.slice(0, shown).map((one) => (
          <Initials key={one.window} person={one} />
        ))}
        {others.length > shown && <span className="text-small text-ink-2">+{others.length - shown}</span>}
      </DropdownMenu.Trigger>
      <MenuContent align="end">
        <div className="max-w-80 px-4 py-1.5">
          <ul>
            {others.map((one) => (
              <li key={one.window} className="py-0.5">
                <b className="font-semibold">{nameOf(one)}</b> <PlaceOf person={one} />
              </li>
            ))}
          </ul>
          {notes.length > 0 && (
            <ul
              className="mt-1.5 border-t border-line pt-1.5 text-ink-2"
              aria-label={t('jobs.whatOthersChanged')}
            >
              {notes.map((note) => (
                <li key={`${note.at}-${note.did}`}>
                  {note.actor} {note.did}
                </li>
              ))}
            </ul>
          )}
        </div>
      </MenuContent>
    </DropdownMenu.Root>
  );
}

const nameOf = (person: PersonInJob) => (person.name === '' ? t('jobs.anotherWindow') : person.name);

/** The picture and the slot, by their names. */
function PlaceOf({ person }: { person: PersonInJob }) {
  const head = useHead();
  const picture = head.pictures.find((one) => one.picture.id === person.picture)?.picture.name;
  const slot = head.slots.find((one) => one.address === person.slot)?.slot.name;
  if (!picture) return <span className="text-ink-2">{t('jobs.isInTheJob')}</span>;
  return (
    <span className="text-ink-2">
      {slot ? t('jobs.isAtPictureIn', { picture, slot }) : t('jobs.isAtPicture', { picture })}
    </span>
  );
}
