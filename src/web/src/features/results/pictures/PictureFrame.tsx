import { Download } from 'lucide-react';
import { useRef, type ReactNode } from 'react';
import { tell } from '../../../api/hooks';
import { keepPng, keepSvg } from '../../../files/keepPicture';
import { Button } from '../../../ui/Button';
import { Menu } from '../../../ui/Menu';
import type { Said } from './WeekPicture';

interface Props {
  picture: ReactNode;
  said: Said;
  /** Where its figures are to be had as a file. */
  csv: string;
  tools?: ReactNode;
}

/** A picture with its title, what it says in words, and what can be taken out of it. */
export function PictureFrame({ picture, said, csv, tools }: Props) {
  const figure = useRef<HTMLElement>(null);
  const name = said.name.toLowerCase().replace(/[^a-z0-9]+/g, '-');
  const take = (how: (svg: SVGSVGElement, name: string) => unknown) => {
    const svg = figure.current?.querySelector('svg');
    if (svg) void Promise.resolve(how(svg, name)).catch(tell);
  };
  return (
    <>
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="text-[15px]">{said.name}</h2>
        {tools}
        <span className="ml-auto text-ink-3">{said.note}</span>
        <Menu
          trigger={
            <Button tone="quiet" aria-label="Take the picture out">
              <Download size={14} aria-hidden />
            </Button>
          }
          entries={[
            { label: 'Picture as SVG', onSelect: () => take(keepSvg) },
            { label: 'Picture as PNG', onSelect: () => take(keepPng) },
            {
              label: 'Its figures as CSV',
              onSelect: () => {
                const link = document.createElement('a');
                link.href = csv;
                link.download = '';
                link.click();
              },
            },
          ]}
        />
      </div>
      <figure ref={figure} className="rounded-lg border border-line bg-sheet">
        {picture}
        <figcaption className="sr-only">{said.words.join('. ')}</figcaption>
      </figure>
    </>
  );
}
