import { useAccount } from '../../api/account';
import { tell } from '../../api/hooks';
import { useScope } from '../../app/scope';
import { Button } from '../../ui/Button';
import { count, money, plural, whole } from '../../ui/format';
import { downloadTerms } from './downloadTerms';
import { rowsOfPage, type TermPage, type TermRequest } from './useTerms';

interface Props {
  page: TermPage;
  isLate: boolean;
  request: TermRequest;
  onPage: (by: number) => void;
}

/** What the filter lets through in all, the next page, and all of it as a file. */
export function TermFoot({ page, isLate, request, onPage }: Props) {
  const account = useAccount();
  const { campaignId, adGroupId } = useScope();
  const { sum } = page;
  return (
    <div className="flex min-h-[35px] flex-wrap items-center gap-x-2 border-t border-line bg-paper px-2.5 py-1">
      <span className="font-semibold" aria-live="polite">
        {isLate && 'Adding up … · '}
        {plural(page.count, 'term')} · {whole(sum.clicks)} clicks · {money(sum.cost, account)} ·{' '}
        {count(sum.conversions)} conv.
      </span>
      <span className="ml-auto flex items-center gap-1.5">
        {page.count > rowsOfPage && (
          <>
            <span className="text-ink-2">
              {whole(request.offset + 1)} – {whole(request.offset + page.rows.length)}
            </span>
            <Button tone="quiet" disabled={request.offset === 0} onClick={() => onPage(-1)}>
              Page before
            </Button>
            <Button
              tone="quiet"
              disabled={request.offset + rowsOfPage >= page.count}
              onClick={() => onPage(1)}
            >
              Next page
            </Button>
          </>
        )}
        <Button
          tone="quiet"
          onClick={() => void downloadTerms(account.id, { ...request, campaignId, adGroupId }).catch(tell)}
        >
          Export CSV
        </Button>
      </span>
    </div>
  );
}
