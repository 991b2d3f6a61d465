import i18next from 'i18next';
import { initReactI18next } from 'react-i18next';
import { figure } from './numbers';
import { en } from './en';

declare module 'i18next' {
  interface CustomTypeOptions {
    returnNull: false;
    resources: { translation: typeof en };
  }
}

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

/** A text of the catalogue, with its values put in. Plural forms follow the rules of Intl. */
export const t = i18next.t;
