import { useState } from 'react';
import type { ItemKind } from '../../api/client';
import { useMeasures } from '../../api/measures';
import { useViews } from '../../api/views';
import { SaveViewDialog, ViewName } from '../../sheet/views/SaveViewDialog';
import { Button } from '../../ui/Button';
import { ColumnsDialog } from '../../ui/ColumnsDialog';
import { Menu } from '../../ui/Menu';
import { AlertsDialog } from './AlertsDialog';
import { OwnMeasureDialog } from './OwnMeasureDialog';
import type { ResultsAddress } from './useResultsAddress';

interface Props {
  address: ResultsAddress;
  level: ItemKind;
  shown: readonly string[];
  figure: string;
  campaignId: number | null;
}

/** Saved views, those of sheets too; which columns there are; measures of one's own. */
export function ResultsViews({ address, level, shown, figure, campaignId }: Props) {
  const views = useViews();
  const measures = useMeasures();
  const [dialog, setDialog] = useState<'save' | 'columns' | 'own' | 'alerts' | null>(null);
  const close = () => setDialog(null);
  const setColumns = (next: readonly string[] | null) =>
    address.set({ columns: next && next.length > 0 ? next.join(',') : null });
  return (
    <>
      <Menu
        trigger={<Button>Views…</Button>}
        entries={[
          ...views.all
            // An outline has items of many kinds: results have one.
            .filter((each) => each.look.results || each.look.request.kind)
            .map((each) => ({
              label: <ViewName view={each} here="results" />,
              onSelect: () =>
                each.look.results
                  ? address.open(each.look.results)
                  : address.set({
                      view: each.name,
                      level: each.look.request.kind ?? null,
                      then: null,
                      condition: null,
                      picture: null,
                    }),
            })),
          { label: 'Save what is shown…', onSelect: () => setDialog('save') },
          { label: 'Columns…', onSelect: () => setDialog('columns') },
          { label: 'Measures of your own…', onSelect: () => setDialog('own') },
          { label: 'Alerts…', onSelect: () => setDialog('alerts') },
        ]}
      />
      {dialog === 'save' && (
        <SaveViewDialog
          views={views}
          look={() => ({
            request: { kind: level, conditions: [] },
            columns: [],
            results: address.all,
          })}
          onClose={close}
        />
      )}
      {dialog === 'columns' && (
        <ColumnsDialog
          known={measures.all}
          shown={shown}
          description="Names always stand first. What is not known of the rows stays empty."
          onChange={setColumns}
          onUsual={() => setColumns(null)}
          onClose={close}
          more={<Button onClick={() => setDialog('own')}>Measures of your own…</Button>}
        />
      )}
      {dialog === 'alerts' && <AlertsDialog figure={figure} campaignId={campaignId} onClose={close} />}
      {dialog === 'own' && (
        <OwnMeasureDialog
          // Among the usual columns it stands anyway.
          onMade={(key) => address.columns && !shown.includes(key) && setColumns([...shown, key])}
          onGone={(key) =>
            address.columns && shown.includes(key) && setColumns(shown.filter((each) => each !== key))
          }
          onClose={close}
        />
      )}
    </>
  );
}
