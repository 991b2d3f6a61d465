import type { PreviewView } from '../api/client';
import { Button } from '../design/Button';
import { useCopy } from '../design/useCopy';
import { Colour } from './Colour';
import { t } from '../texts/texts';

const sides = [t('overlay.left'), t('overlay.top'), t('overlay.right'), t('overlay.bottom')];

/** The colours of the picture itself, and of its edge, for the page around it. */
export function Colours({ colours }: { colours: NonNullable<PreviewView['colours']> }) {
  const { said, copy } = useCopy();
  return (
    <section className="mt-3 border-t border-line pt-2" aria-label={t('overlay.coloursOfThePicture')}>
      <p className="text-small text-ink-2">{t('overlay.mainColoursClickOrPressC')}</p>
      <div className="mt-1 grid grid-cols-4 gap-1">
        {colours.leading.map((hex) => (
          <Colour key={hex} hex={hex} name={hex} />
        ))}
      </div>
      <p className="mt-2 text-small text-ink-2">{t('overlay.edgeColoursAndWhetherAPage')}</p>
      <div className="mt-1 grid grid-cols-4 gap-1">
        {colours.edges.map((edge, i) => (
          <div key={sides[i]} className="min-w-0">
            <Colour
              hex={edge.colour}
              name={edge.colour}
              hint={t('overlay.edge', { side: sides[i]!, colour: edge.colour })}
            />
            <p className="text-note leading-4 text-ink-2">
              {sides[i]}, {edge.even ? t('overlay.oneColour') : t('overlay.severalColours')}
            </p>
          </div>
        ))}
      </div>
      {colours.background ? (
        <p className="mt-1 flex items-center gap-2">
          <code className="min-w-0 flex-1 wrap-anywhere bg-sheet-2 px-1.5 py-0.5 text-small">
            {colours.background}
          </code>
          <Button className="h-6! px-2!" onClick={() => copy(t('overlay.theCSSRule'), colours.background!)}>
            {said ? t('overlay.copied2') : t('overlay.copy')}
          </Button>
        </p>
      ) : (
        <p className="mt-1 text-small text-ink-2">{t('overlay.noSingleColourContinuesAllEdges')}</p>
      )}
    </section>
  );
}
