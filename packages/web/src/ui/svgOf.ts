import { atOrThrow, orThrow } from '@roof-chart/core/collections/orThrow';
import { PAPER } from '@roof-chart/core/outputs/svgText';

/** What makes the look of a drawn element, and may come from the page's styles. */
const LOOKS = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'opacity',
  'fill-opacity',
  'font-size',
  'font-family',
  'font-weight',
  'text-anchor',
] as const;

/** The first chart within an element as a standalone SVG with its styles inlined.
 *  @throws RangeError where there is none */
export function svgOf(figure: Element | null): string {
  const element = orThrow(figure, 'figure');
  const drawn = orThrow(element.querySelector('svg.recharts-surface'), 'chart');
  const copy = drawn.cloneNode(true) as SVGElement;
  const [from, to] = [[...drawn.querySelectorAll('*')], [...copy.querySelectorAll('*')]];
  from.forEach((one, at) => {
    const style = getComputedStyle(one);
    for (const look of LOOKS) atOrThrow(to, at).setAttribute(look, style.getPropertyValue(look));
    atOrThrow(to, at).removeAttribute('class');
    atOrThrow(to, at).removeAttribute('style');
  });
  const { width, height } = drawn.getBoundingClientRect();
  const paper = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
  for (const [name, value] of Object.entries({ width: String(width), height: String(height), fill: PAPER }))
    paper.setAttribute(name, value);
  copy.prepend(paper);
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(width));
  copy.setAttribute('height', String(height));
  return new XMLSerializer().serializeToString(copy);
}
