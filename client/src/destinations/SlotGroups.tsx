import { slotTypeValues } from '../api/schema';
import { typeNames } from '../design/typeNames';
import { Group, TextField, TickField } from '../forms/Fields';
import { weightText } from '../forms/rule';
import { RulePair, RuleSelect, RuleText, RuleTick, Wide } from '../forms/RuleFields';
import { SizeFields } from '../forms/SizeFields';
import { usePlace, useSlotFormHere } from '../forms/slotForm';
import { usual } from '../domain/ruleKeys';
import { t } from '../texts/texts';
import { DressFields } from './DressFields';
import { PageFields } from './PageFields';
import { SeenFields } from './SeenFields';

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
  const types = (value as string[] | undefined) ?? usual<string[]>('types');
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

function WrittenFields() {
  return (
    <>
      <RuleSelect
        name={t('destinations.colourProfile')}
        place="profile"
        options={[
          ['srgb', t('destinations.convertToSRGB')],
          ['keep', t('destinations.keep')],
        ]}
      />
      <RuleSelect
        name={t('destinations.tagsKept')}
        place="metadata"
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
