import type { Schemas } from '../../api/client';
import { useGo } from '../../app/scope';
import { Button } from '../../ui/Button';
import { WeightMark } from '../../ui/Marks';

interface Props {
  finding: Schemas['AccountFinding'];
  onPayer: () => void;
}

/** Something found that lies in no single item, with the way to where it is mended. */
export function OfAccount({ finding, onPayer }: Props) {
  const go = useGo();
  const isSearch = finding.savedSearchId !== null;
  return (
    <li className="grid grid-cols-[20px_minmax(140px,1fr)_minmax(130px,210px)_minmax(160px,2fr)_auto] items-center gap-3 border-b border-line-soft px-3 py-1.5">
      <span />
      <span className="text-ink-3">{isSearch ? 'saved search' : 'account'}</span>
      <span>
        <WeightMark weight={finding.weight}>{finding.message}</WeightMark>
      </span>
      <span className="text-ink-2">{finding.detail}</span>
      <Button
        aria-label={`Mend: ${finding.message}, ${finding.detail}`}
        onClick={() => (isSearch ? go('ship/trace', { of: 'saved' }) : onPayer())}
      >
        Mend
      </Button>
    </li>
  );
}
