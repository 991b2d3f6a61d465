import { renderToStaticMarkup } from 'react-dom/server';
import { expect, test } from 'vitest';
import type { Right } from '../api/me';
import { Button } from './Button';
import { RightsContext } from './rights';
import { useDraft } from './useDraft';

const drawn = (rights: readonly Right[] | null, needs?: Right) =>
  renderToStaticMarkup(
    <RightsContext value={rights}>
      <Button needs={needs} title="What it does">
        7
      </Button>
    </RightsContext>,
  );

test('a button that needs a right is off without it and says who may', () => {
  const edits = drawn(['look', 'comment'], 'edit');
  expect(edits).toContain('disabled=""');
  expect(edits).toContain('title="Only editors and owners may do this."');
  expect(drawn(['look', 'edit'], 'useFolders')).toContain('title="Only owners may do this, and roles');
});

test('it is as it was with the right, where everything is allowed, and where none is needed', () => {
  for (const button of [drawn(['look', 'edit'], 'edit'), drawn(null, 'edit'), drawn(['look'])]) {
    expect(button).not.toContain('disabled=""');
    expect(button).toContain('title="What it does"');
  }
});

function Typed() {
  const { field } = useDraft('7', () => undefined);
  return <input {...field} />;
}

test('a field that is typed into can be read only by whoever may not edit, and says who may', () => {
  const typed = (rights: readonly Right[] | null) =>
    renderToStaticMarkup(
      <RightsContext value={rights}>
        <Typed />
      </RightsContext>,
    );
  expect(typed(['look', 'comment'])).toContain('readOnly=""');
  expect(typed(['look', 'comment'])).toContain('title="Only editors and owners may do this."');
  for (const rights of [['look', 'edit'] as const, null]) {
    expect(typed(rights)).not.toContain('readOnly');
    expect(typed(rights)).toContain('value="7"');
  }
});
