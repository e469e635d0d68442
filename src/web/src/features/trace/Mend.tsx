import type { Schemas } from '../../api/client';
import { useGo } from '../../app/scope';

/** Why something is out, as the way to where it is mended. */
export function Mend({ hindrance }: { hindrance: Schemas['Hindrance'] }) {
  const go = useGo();
  return (
    <button
      type="button"
      className="text-left text-plum underline decoration-line-strong underline-offset-2 hover:decoration-plum"
      onClick={() =>
        go(hindrance.itemKind === 'negativeKeyword' ? 'plan/negatives' : 'plan/structure', {
          campaign: null,
          adGroup: null,
          focus: `${hindrance.itemKind}:${hindrance.itemId}`,
        })
      }
    >
      {hindrance.text}
    </button>
  );
}
