import { slotTypeValues } from '../api/schema';
import { typeNames } from '../design/typeNames';
import { DressFields } from './DressFields';
import { Group, TextField, TickField } from '../forms/Fields';
import { typed, weightText } from '../forms/rule';
import { RulePair, RuleSelect, RuleText, RuleTick, Wide } from '../forms/RuleFields';
import { PageFields } from './PageFields';
import { SizeFields } from '../forms/SizeFields';
import { usePlace, useSlotFormHere } from '../forms/slotForm';
import { t } from '../texts/texts';

/** Every key of a slot's rule, by subject. */
export function SlotGroups({ isNew }: { isNew: boolean }) {
  return (
    <>
      <Group name={t('destinations.name')}>
        <NameFields isNew={isNew} />
      </Group>
      <Group name={t('destinations.size')}>
        <SizeFields />
      </Group>
      <Group name={t('destinations.onThePage')}>
        <PageFields />
      </Group>
      <Group name={t('destinations.typesInOrderOfPreference')}>
        <TypeFields />
      </Group>
      <Group name={t('destinations.limits')}>
        <LimitFields />
      </Group>
      <Group name={t('destinations.aims')}>
        <AimFields />
      </Group>
      <Group name={t('destinations.cropAndLook')}>
        <SeenFields />
      </Group>
      <Group name={t('destinations.textAndOverlay')}>
        <DressFields />
      </Group>
      <Group name={t('destinations.metadata')}>
        <WrittenFields />
      </Group>
    </>
  );
}

function NameFields({ isNew }: { isNew: boolean }) {
  const { form, draft, check } = useSlotFormHere();
  return (
    <>
      <Wide columns={2}>
        <RuleText name={t('destinations.name')} place="name" read={(text) => text || undefined} />
      </Wide>
      <Wide columns={2}>
        <RuleText
          name={t('destinations.key')}
          hint={t('destinations.jobsReferToTheSlotBy')}
          place="key"
          read={(text) => text}
          readOnly={!isNew}
        />
      </Wide>
      <Wide columns={4}>
        <TextField
          name={t('destinations.fileNames')}
          hint="{picture} {slot} {destination} {density} {width} {height} {ratio} {hash}"
          value={draft.pattern}
          placeholder="{picture}-{slot}{density}"
          onSet={(pattern) => form.setValue('pattern', pattern, { shouldDirty: true })}
          fault={check?.fault?.place === 'pattern' ? check.fault.message : undefined}
        />
      </Wide>
    </>
  );
}

function TypeFields() {
  const { value, set, fault } = usePlace('types');
  const types = (value as string[] | undefined) ?? ['jpeg'];
  return (
    <>
      <div className="col-span-4 flex flex-wrap items-center gap-x-4 gap-y-1">
        {slotTypeValues.map((one) => (
          <TickField
            key={one}
            name={
              <>
                {one === 'auto' ? t('destinations.byContent') : typeNames[one]}{' '}
                {types.length > 1 && types.includes(one) && (
                  <b className="text-ink-2">{types.indexOf(one) + 1}</b>
                )}
              </>
            }
            value={types.includes(one)}
            onSet={(on) => set(on ? [...types, one] : types.filter((type) => type !== one))}
          />
        ))}
        {fault && <span className="text-small text-breaks">{fault}</span>}
      </div>
      <Wide columns={4}>
        <RuleTick name={t('destinations.oneFileOfEachTypeInstead')} place="each" />
      </Wide>
    </>
  );
}

function LimitFields() {
  return (
    <>
      <Wide columns={2}>
        <RuleText
          name={t('destinations.weightAtMost')}
          placeholder="500 kB"
          place="limits.maxBytes"
          show={weightText}
        />
      </Wide>
      <Wide columns={2} />
      <RuleText name={t('destinations.widthAtMost')} place="limits.maxWidth" unit="px" />
      <RuleText name={t('destinations.heightAtMost')} place="limits.maxHeight" unit="px" />
      <RuleText name={t('destinations.widthAtLeast')} place="limits.minWidth" unit="px" />
      <RuleText name={t('destinations.heightAtLeast')} place="limits.minHeight" unit="px" />
    </>
  );
}

function AimFields() {
  return (
    <>
      <RulePair
        name={t('destinations.weight')}
        place="aims.bytes"
        show={weightText}
        placeholders={['300 kB', '500 kB']}
      />
      <RulePair name={t('destinations.quality')} place="aims.quality" />
      <RuleText name={t('destinations.likeness')} place="aims.likeness" placeholder="0.98" />
      <span className="col-span-3 self-end pb-1">
        <RuleTick name={t('destinations.allowALowerQualityToMeet')} place="aims.belowFloor" />
      </span>
    </>
  );
}

function SeenFields() {
  return (
    <>
      <ClearFields />
      <RuleText
        name={t('destinations.subjectShare')}
        place="subjectShare"
        hint={t('destinations.theShareOfTheClearArea')}
        placeholder={t('destinations.asWideAsPossible')}
      />
      <RulePair
        name={t('destinations.cropTowards')}
        place="toward"
        placeholders={['0.5', '0.5']}
        names={[t('destinations.cropTowardsHorizontally'), t('destinations.vertically')]}
      />
      <RuleText
        name={t('destinations.background')}
        place="background"
        hint={t('destinations.rrggbbOrEdgeForTheColour')}
        placeholder="#ffffff"
      />
      <RuleSelect
        name={t('destinations.sharpen')}
        place="sharpen"
        usual="mild"
        options={[
          ['off', t('destinations.none')],
          ['mild', t('destinations.mild')],
          ['firm', t('destinations.strong')],
        ]}
      />
      <RuleSelect
        name={t('destinations.animation')}
        place="frames"
        usual="first"
        options={[
          ['first', t('destinations.firstFrame')],
          ['all', t('destinations.allFrames')],
        ]}
      />
      <span className="col-span-4">
        <RuleTick name={t('destinations.extendTheCanvasWhereNoCrop')} place="extend" />
      </span>
      <PairFields />
    </>
  );
}

function PairFields() {
  const pair = usePlace('pair');
  const { check } = useSlotFormHere();
  // What is wrong with a part of it stands at that part.
  const fault = check?.fault?.place === 'pair' ? check.fault.message : undefined;
  return (
    <>
      <Wide columns={4}>
        <TickField
          name={t('destinations.combinePicturesSideBySide')}
          value={pair.value !== undefined}
          onSet={(on) => pair.set(on ? { count: 2, gap: 8 } : undefined)}
        />
        {fault && <span className="text-small text-breaks">{fault}</span>}
      </Wide>
      {pair.value !== undefined && (
        <>
          <RuleText
            name={t('destinations.numberOfPictures')}
            place="pair.count"
            hint={t('destinations.n2To4')}
            placeholder="2"
          />
          <RuleText
            name={t('destinations.gap')}
            place="pair.gap"
            unit="px"
            hint={t('destinations.betweenTwoPictures')}
            placeholder="0"
          />
          <RuleText
            name={t('destinations.colourOfTheGap')}
            place="pair.background"
            hint={t('destinations.rrggbb')}
            placeholder="#ffffff"
            read={(text) => text || undefined}
          />
        </>
      )}
    </>
  );
}

function ClearFields() {
  const { clear, set, fault } = useClear();
  const setEdge = (edge: number, text: string) => {
    const figure = typed(text) as number | undefined;
    set(clear.map((now, i) => (i === edge ? (figure ?? now) : now)));
  };
  return [
    t('destinations.clearAreaFromLeft'),
    t('destinations.fromTop'),
    t('destinations.toRight'),
    t('destinations.toBottom'),
  ].map((name, i) => (
    <TextField
      key={name}
      name={name}
      value={String(clear[i] ?? '')}
      onSet={(text) => setEdge(i, text)}
      fault={i === 0 ? fault : undefined}
      hint={t('destinations.each0To1OfThe')}
    />
  ));
}

/** The clear area; all of the slot is not written down. */
export function useClear() {
  const { value, set, fault } = usePlace('clear');
  return {
    clear: (value as number[] | undefined) ?? [0, 0, 1, 1],
    set: (next: number[]) => set(next.join() === '0,0,1,1' ? undefined : next),
    fault,
  };
}

function WrittenFields() {
  return (
    <>
      <RuleSelect
        name={t('destinations.colourProfile')}
        place="profile"
        usual="srgb"
        options={[
          ['srgb', t('destinations.convertToSRGB')],
          ['keep', t('destinations.keep')],
        ]}
      />
      <RuleSelect
        name={t('destinations.tagsKept')}
        place="metadata"
        usual="drop"
        options={[
          ['drop', t('destinations.none')],
          ['copyright', 'copyright'],
          ['keep', t('destinations.keep')],
        ]}
      />
      <RuleText name={t('destinations.resolutionTagPpi')} place="ppi" unit="ppi" />
      <span className="self-end pb-1">
        <RuleTick name={t('destinations.location')} place="location" />
      </span>
    </>
  );
}
