import { useGo } from '../../../app/scope';
import { Button } from '../../../ui/Button';
import { count, plural } from '../../../ui/format';
import { WeightMark } from '../../../ui/Marks';
import { Empty } from '../../../ui/Panel';
import { devices, sites } from '../question';
import { useSavedSearchActs, useSavedSearches } from './useSavedSearches';

/** The tests of the account, those that fail first. */
export function SavedSearches() {
  const go = useGo();
  const searches = useSavedSearches();
  const { remove } = useSavedSearchActs();
  if (searches.isError)
    return (
      <p role="alert" className="p-4 text-brick">
        {searches.error.message}
      </p>
    );
  if (!searches.data) return <p className="p-4 text-ink-3">Looking…</p>;
  const all = searches.data.searches;
  if (all.length === 0)
    return (
      <Empty title="Searches that the account must pass">
        Save the searches that should show, and those that should not. Whatever is changed later, by whomever,
        is held to them before it is published.
      </Empty>
    );
  const failing = all.filter((each) => each.holds === false);
  return (
    <div>
      <h2 role="status" className="border-b border-line bg-paper px-3 py-1.5 text-[14px]">
        {searches.data.checking ? (
          'The newest changes are being looked at…'
        ) : failing.length === 0 ? (
          all.length === 1 ? (
            'The saved search does what it should'
          ) : (
            `All ${count(all.length)} saved searches do what they should`
          )
        ) : (
          <WeightMark weight="caution">
            {count(failing.length)} of {plural(all.length, 'saved search', 'saved searches')}{' '}
            {failing.length === 1 ? 'fails' : 'fail'}
          </WeightMark>
        )}
      </h2>
      <ul>
        {all.map((each) => {
          const { search } = each;
          return (
            <li
              key={each.id}
              className="grid grid-cols-[minmax(150px,1fr)_minmax(200px,2fr)_auto] items-start gap-3 border-b border-line-soft px-3 py-1.5"
            >
              <span className="min-w-0">
                <b className="block truncate font-semibold">{search.text}</b>
                <span className="block truncate text-[12px] text-ink-3">
                  {[
                    devices.find((device) => device.value === search.device)?.label.toLowerCase(),
                    sites.find((site) => site.value === search.site)?.label.toLowerCase(),
                    search.place,
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </span>
              </span>
              <span>
                {each.holds === false ? (
                  <WeightMark weight="caution">{each.expected}</WeightMark>
                ) : (
                  <span className="text-ink-2">{each.expected}</span>
                )}
                <span className="block text-ink-2">{each.told ?? 'Not tried yet.'}</span>
              </span>
              <span className="flex gap-1.5">
                <Button
                  aria-label={`Trace “${search.text}”`}
                  onClick={() =>
                    go('ship/trace', { text: search.text, device: search.device, site: search.site })
                  }
                >
                  Trace
                </Button>
                <Button
                  tone="quiet"
                  aria-label={`Remove “${search.text}”`}
                  onClick={() => void remove([each.id])}
                >
                  Remove
                </Button>
              </span>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
