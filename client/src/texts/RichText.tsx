import type { ReactElement } from 'react';
import { Trans } from 'react-i18next';
import './texts';
import type { TextKey, TextValues } from './texts';

/** A text of the catalogue with elements in it: `<b>...</b>` in the text is drawn by the element of that name. */
export const RichText = <Key extends TextKey>({
  text,
  values,
  elements,
}: {
  text: Key;
  values: TextValues<Key>;
  elements: Record<string, ReactElement>;
}) => <Trans i18nKey={text} values={values} components={elements} />;
