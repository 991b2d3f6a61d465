import { renderToStaticMarkup } from 'react-dom/server';
import { expect, test } from 'vitest';
import { RichText } from './RichText';

test('a text with elements is drawn with them, counted as others are, and its values are escaped', () => {
  const one = <RichText text="handingOver.noText" values={{ count: 1 }} elements={{ b: <i /> }} />;
  expect(renderToStaticMarkup(one)).toBe('<i>1</i> picture has no alternative text.');
  const values = { loaded: '1 < 2', enough: '2 kB' };
  const escaped = <RichText text="pageCheck.pictureBytes" values={values} elements={{ b: <b /> }} />;
  expect(renderToStaticMarkup(escaped)).toContain('<b>1 &lt; 2</b>');
});
