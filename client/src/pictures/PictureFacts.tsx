import type { ReactNode } from 'react';
import { addresses, type Picture } from '../api/client';
import { megapixels, printed, size, weight } from '../design/figures';

const turns: Record<number, string> = {
  2: 'Stored mirrored; shown the right way round.',
  3: 'Stored upside down; shown upright.',
  4: 'Stored upside down and mirrored; shown upright.',
  5: 'Stored on its side and mirrored; shown upright.',
  6: 'Stored on its side; shown upright.',
  7: 'Stored on its side and mirrored; shown upright.',
  8: 'Stored on its side; shown upright.',
};

/** What the file says about itself, in words that do not mislead. */
export function PictureFacts({ picture }: { picture: Picture }) {
  return (
    <section className="border-b border-line px-5 pt-4 pb-4" aria-label="Facts">
      <h2 className="truncate text-base" title={picture.name}>
        {picture.name}
      </h2>
      <p className="mt-0.5 text-ink-2">
        {size(picture.width, picture.height)}, {weight(picture.bytes)}, {picture.formatLabel}
      </p>
      <dl className="mt-3 grid grid-cols-[96px_1fr] gap-x-3 gap-y-1.5">
        <Fact term="Pixels">{megapixels(picture.width, picture.height)}</Fact>
        {picture.kind && (
          <Fact term="Content">
            {picture.kind === 'photograph' ? 'photograph' : 'flat graphic'}
            {picture.needsLight && (
              <span className="block text-ink-2">
                Much fine bright detail: reduced in linear light, so that it stays as bright as from afar.
              </span>
            )}
          </Fact>
        )}
        {picture.jpegQuality != null && (
          <Fact term="Quality">
            about {picture.jpegQuality}
            <span className="block text-ink-2">
              Read from its tables. At full size variants go no higher unless asked; reduced to a half or
              less, it no longer holds them.
            </span>
          </Fact>
        )}
        <Fact term="Colours">
          {picture.colours}, {picture.bits} bit
          {picture.profile ? `, ${picture.profile}` : ', no profile: read as sRGB'}
        </Fact>
        <Fact term="Transparency">{picture.hasAlpha ? 'yes' : 'none'}</Fact>
        {turns[picture.orientation] && <Fact term="Turned">{turns[picture.orientation]}</Fact>}
        {picture.frames > 1 && <Fact term="Frames">{`${picture.frames}; the first one is used`}</Fact>}
        <Fact term="Resolution tag (ppi)">
          {picture.ppi == null ? (
            'none'
          ) : (
            <>
              {picture.ppi} ppi
              <span className="block text-ink-2">
                Only a label for print: {printed(picture.width, picture.ppi)} ×{' '}
                {printed(picture.height, picture.ppi)} cm. It changes no pixel and no weight.
              </span>
            </>
          )}
        </Fact>
        {picture.hasLocation && (
          <Fact term="Location">
            The file tells where it was taken. No variant does, unless its slot says so.
          </Fact>
        )}
        {picture.misnamed && (
          <Fact term="Name">{`Ends like another type, but the file is a ${picture.formatLabel}.`}</Fact>
        )}
      </dl>
      <a
        className="mt-3 inline-block text-accent underline underline-offset-2"
        href={addresses.original(picture.id)}
        download={picture.name}
      >
        Save the original as it arrived
      </a>
    </section>
  );
}

function Fact({ term, children }: { term: string; children: ReactNode }) {
  return (
    <>
      <dt className="text-ink-2">{term}</dt>
      <dd className="break-words">{children}</dd>
    </>
  );
}
