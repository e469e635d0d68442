import { AdPicture } from '../../items/AdPicture';
import type { Input } from './FieldEditor';

const lines = (value: Input | undefined) =>
  (Array.isArray(value) ? value : [value ?? '']).filter((line) => line.trim() !== '');

/** The ad that is being written, about as people would see it. */
export function AdPreview({ values }: { values: Record<string, Input> }) {
  return (
    <AdPicture
      headlines={lines(values.headlines)}
      descriptions={lines(values.descriptions)}
      displayPath={lines(values.displayPath)}
      landingPage={lines(values.landingPage)[0] ?? ''}
    />
  );
}
