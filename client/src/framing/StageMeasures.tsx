import type { CSSProperties } from 'react';
import { DimensionLine } from '../design/DimensionLine';
import { count } from '../design/figures';
import type { Box } from '../domain/box';
import { t } from '../texts/texts';

/** The measures of the frame above and left of the picture, those of the picture below and right. */
export function Measures({
  picture,
  box,
  scale,
}: {
  picture: { width: number; height: number };
  box: Box;
  scale: number;
}) {
  const [width, height] = [picture.width * scale, picture.height * scale];
  const [across, down] = [box.width * scale, box.height * scale];
  return (
    <>
      <Line along="width" length={across} at={{ left: box.x * scale, top: -24 }}>
        {across > 90 ? t('framing.widthPx', { width: count(box.width) }) : ''}
      </Line>
      <Line along="height" length={down} at={{ top: box.y * scale, left: -24 }}>
        {down > 70 ? t('framing.heightPx', { height: count(box.height) }) : ''}
      </Line>
      <Line along="width" length={width} at={{ left: 0, top: height + 8 }}>
        {t('framing.ofWidth', { width: count(picture.width) })}
      </Line>
      <Line along="height" length={height} at={{ top: 0, left: width + 8 }}>
        {t('framing.ofHeight', { height: count(picture.height) })}
      </Line>
    </>
  );
}

function Line({
  along,
  length,
  at,
  children,
}: {
  along: 'width' | 'height';
  length: number;
  at: CSSProperties;
  children: string;
}) {
  return (
    <div className="absolute text-surround-line" style={at}>
      <DimensionLine along={along} length={length}>
        {children}
      </DimensionLine>
    </div>
  );
}
