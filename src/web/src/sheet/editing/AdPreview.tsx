import type { ItemKind } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { AdPicture } from '../../items/AdPicture';
import { inserts, seenOf, useTexts } from '../../items/useTexts';
import type { Input } from './FieldEditor';

const linesOf = (value: Input | undefined) => (Array.isArray(value) ? value : [value ?? '']);

/** The ad that is being written or looked at, about as people would see it. */
export function AdPreview({ kind, values }: { kind: ItemKind; values: Record<string, Input> }) {
  const { fields } = useKinds().of(kind);
  const texts = Object.fromEntries(
    fields.filter((field) => field.insertsWords).map((field) => [field.name, linesOf(values[field.name])]),
  );
  const read = useTexts(kind, texts, {
    wanted: Object.values(texts).some((lines) => lines.some(inserts)),
  });
  const seen = (name: string) =>
    seenOf(name, texts[name] ?? [], read.data ?? []).slice(
      0,
      fields.find((field) => field.name === name)?.places ?? undefined,
    );
  const one = (name: string) => linesOf(values[name])[0] ?? '';
  return (
    <AdPicture
      headlines={seen('headlines')}
      descriptions={seen('descriptions')}
      displayPath={seen('displayPath')}
      landingPage={one('landingPage')}
      business={one('businessName')}
      calls={one('callNumber')}
    />
  );
}
