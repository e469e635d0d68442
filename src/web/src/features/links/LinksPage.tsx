import { useAccount } from '../../api/account';
import { useScope } from '../../app/scope';
import { PageHead } from '../../ui/Panel';
import { LinkChecks } from './ChecksTable';
import { Composer } from './Composer';
import { useTemplateHolder } from './useLinks';

/** Where clicks lead: what is said of them on the way, and whether they arrive. */
export function LinksPage() {
  const account = useAccount();
  const scope = useScope();
  const holder = useTemplateHolder(scope);
  return (
    <div className="flex h-full min-h-0 flex-col">
      <PageHead title="Links" note="the nearest template holds: keyword, ad group, campaign, account" />
      <div className="min-h-0 flex-1 overflow-auto bg-sheet">
        {holder.isError && (
          <p role="alert" className="p-4 text-brick">
            {holder.error.message}
          </p>
        )}
        {holder.data && (
          <Composer
            key={`${holder.data.kind} ${holder.data.id}`}
            row={holder.data}
            name={holder.data.kind === 'account' ? account.name : holder.data.name}
            scope={scope}
          />
        )}
        <LinkChecks />
      </div>
    </div>
  );
}
