import type { Schemas } from '../api/client';

/** A text that came of another, with what is new in it marked. */
export function MarkedText({ parts }: { parts: readonly Schemas['TextPart'][] }) {
  return parts.map((part, place) =>
    part.isNew ? (
      <mark key={place} className="rounded-sm bg-ember-wash text-inherit underline decoration-ember">
        {part.text}
      </mark>
    ) : (
      part.text
    ),
  );
}
