import { keepFile } from './keepFile';

/** What of the look of an element comes from the page's style sheet and has to go along. */
const looks = [
  'fill',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'opacity',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor',
  'paint-order',
] as const;

const namespace = 'http://www.w3.org/2000/svg';

/** A picture as a file that needs nothing of this page: its colours and letters written into it. */
export function standalone(picture: SVGSVGElement): { text: string; width: number; height: number } {
  const { width, height } = picture.viewBox.baseVal;
  const copy = picture.cloneNode(true) as SVGSVGElement;
  const from = [picture, ...picture.querySelectorAll<SVGElement>('*')];
  const to = [copy, ...copy.querySelectorAll<SVGElement>('*')];
  from.forEach((element, place) => {
    const target = to[place];
    if (!target) return;
    const computed = window.getComputedStyle(element);
    for (const name of looks) {
      const value = computed.getPropertyValue(name);
      // A pattern is named by its place in the file: what the page makes of its address would lead nowhere.
      if (value && !value.includes('url(')) target.setAttribute(name, value);
    }
    target.removeAttribute('class');
    target.removeAttribute('style');
    target.removeAttribute('tabindex');
  });
  copy.setAttribute('xmlns', namespace);
  copy.setAttribute('width', String(width));
  copy.setAttribute('height', String(height));
  const ground = document.createElementNS(namespace, 'rect');
  ground.setAttribute('width', '100%');
  ground.setAttribute('height', '100%');
  ground.setAttribute('fill', window.getComputedStyle(picture.parentElement ?? picture).backgroundColor);
  copy.prepend(ground);
  return { text: new XMLSerializer().serializeToString(copy), width, height };
}

/** Gives a picture to the browser to keep, as SVG. */
export function keepSvg(picture: SVGSVGElement, name: string) {
  keepFile(new Blob([standalone(picture).text], { type: 'image/svg+xml' }), `${name}.svg`);
}

/** Gives a picture to the browser to keep, as PNG of twice its size. */
export async function keepPng(picture: SVGSVGElement, name: string) {
  const { text, width, height } = standalone(picture);
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = width * 2;
  canvas.height = height * 2;
  const context = canvas.getContext('2d');
  if (!context) throw new Error('This browser cannot draw the picture.');
  context.drawImage(image, 0, 0, canvas.width, canvas.height);
  const file = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
  if (!file) throw new Error('This browser cannot write the picture.');
  keepFile(file, `${name}.png`);
}
