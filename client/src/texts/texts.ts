import i18next from 'i18next';
import { initReactI18next } from 'react-i18next';
import { figure } from './numbers';
import { en } from './en';

/*
 * The catalogue is complete when the first module asks for a text: resources are compiled in, so nothing is
 * loaded. React escapes what it draws, so the catalogue must not.
 */
void i18next.use(initReactI18next).init({
  lng: 'en',
  fallbackLng: 'en',
  resources: { en: { translation: en } },
  initAsync: false,
  returnNull: false,
  interpolation: { escapeValue: false },
});
i18next.services.formatter?.add('number', (value: number) => figure(value));

/*
 * The types below say no more than is used: a key, and the values that its text names. The package's own types
 * also follow contexts, namespaces and lists of keys, and checking them took half of the compiler's time.
 */
type Catalogue = typeof en;
type Screen = keyof Catalogue;
type Singular<Key extends string> = Key extends `${infer Name}_${'one' | 'other'}` ? Name : Key;

/** A text's key: its screen and its name, without the ending of a plural form. */
export type TextKey = {
  [S in Screen]: `${S}.${Singular<keyof Catalogue[S] & string>}`;
}[Screen];

type TextOf<Key extends TextKey> = Key extends `${infer S extends Screen}.${infer Name}`
  ? Name extends keyof Catalogue[S]
    ? Catalogue[S][Name]
    : `${Name}_other` extends keyof Catalogue[S]
      ? Catalogue[S][`${Name}_other`] | Catalogue[S][`${Name}_one` & keyof Catalogue[S]]
      : never
  : never;

type NamedIn<Text> = Text extends `${string}{{${infer Name}}}${infer Rest}`
  ? (Name extends `${infer Bare}, number` ? Bare : Name) | NamedIn<Rest>
  : never;

type Values<Names extends string> = { [Name in Names]: Name extends 'count' ? number : string | number };
type Counted<Key extends TextKey> = Key extends `${infer S extends Screen}.${infer Name}`
  ? `${Name}_other` extends keyof Catalogue[S]
    ? 'count'
    : never
  : never;

/** The values that a text names; a text that names none takes none. */
export type TextValues<Key extends TextKey> = Values<NamedIn<TextOf<Key>> | Counted<Key>>;

type Arguments<Key extends TextKey> = [NamedIn<TextOf<Key>> | Counted<Key>] extends [never]
  ? []
  : [values: TextValues<Key>];

/** A text of the catalogue, with its values put in. Plural forms follow the rules of Intl. */
export const t = i18next.t as unknown as <Key extends TextKey>(key: Key, ...values: Arguments<Key>) => string;
