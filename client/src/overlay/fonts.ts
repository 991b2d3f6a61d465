import { useEffect } from 'react';

const asked = new Set<string>();

/** The name under which a font of the application is known to the page. */
export const familyOf = (family: string) => `over ${family}`;

/** Has the page know some fonts in one weight, so that words can be shown in them. */
export function useFonts(families: readonly string[], weight: number) {
  useEffect(() => {
    for (const family of families) {
      const key = `${family}/${weight}`;
      if (asked.has(key)) continue;
      asked.add(key);
      const face = new FontFace(familyOf(family), `url(/api/fonts/${encodeURIComponent(family)}/${weight})`, {
        weight: String(weight),
      });
      document.fonts.add(face);
      void face.load().catch(() => asked.delete(key));
    }
  }, [families, weight]);
}
