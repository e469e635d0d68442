import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useAccount } from '../../../api/account';
import { answer, api, type Schemas } from '../../../api/client';
import { useMeasures } from '../../../api/measures';
import { Choice } from '../../../ui/Choice';
import { Segments } from '../../../ui/Segments';
import { chartNote, DayChart, type Grain } from '../DayChart';
import type { BreakdownAsked } from '../useBreakdown';
import type { ResultsAddress } from '../useResultsAddress';
import { MapPicture } from './MapPicture';
import { PictureFrame } from './PictureFrame';
import { pictureNames } from './pictures';
import { ScatterPicture } from './ScatterPicture';
import { WeekPicture, type Frame } from './WeekPicture';

/** How fine the chart is. */
const grains = [
  { value: 'day', label: 'Days' },
  { value: 'week', label: 'Weeks' },
  { value: 'month', label: 'Months' },
] as const satisfies readonly { value: Grain; label: string }[];

interface Props {
  address: ResultsAddress;
  data: Schemas['ResultsAnswer'];
  asked: Omit<BreakdownAsked, 'by' | 'then'>;
  level: Schemas['ItemKind'];
  figure: string;
  /** True while only some items of the level are looked at: hours and places are known of all. */
  isKept: boolean;
  csv: (door: string, query: object) => string;
  onDrill: (row: Schemas['ResultsRow']) => void;
}

/** The chosen figure where people would rather look: over time, by the hours of the week, on a map, or each item as a point. */
export function PictureOf({ address, data, asked, level, figure, isKept, csv, onDrill }: Props) {
  const measures = useMeasures();
  const { grain, set } = address;
  const picture = isKept && address.picture !== 'scatter' ? 'time' : address.picture;
  const published = useOwnChanges(asked, picture === 'time');
  // What ads brought is known by hour and place; where they stood is not.
  const brought = measures.find(figure)?.group === 'stood' ? 'impressions' : figure;
  const choice = (
    <Choice
      label="Picture"
      value={picture}
      options={pictureNames.filter((each) => !isKept || each.value === 'time' || each.value === 'scatter')}
      onChange={(next) => set({ picture: next === 'time' ? null : next })}
    />
  );
  const framed =
    (href: string, tools?: React.ReactNode): Frame =>
    (drawn, said) => (
      <PictureFrame
        picture={drawn}
        said={said}
        csv={href}
        tools={
          <>
            {choice}
            {tools}
          </>
        }
      />
    );
  switch (picture) {
    case 'time':
      return (
        <DayChart
          days={data.days}
          figure={figure}
          grain={grain}
          changes={published.data ?? []}
          note={published.isError ? published.error.message : chartNote(data)}
          frame={framed(
            csv('/breakdown', { ...asked, by: grain }),
            <Segments
              label="How fine"
              value={grain}
              segments={grains}
              onChange={(next) => set({ grain: next === 'day' ? null : next })}
            />,
          )}
        />
      );
    case 'week':
      return (
        <WeekPicture
          asked={{ ...asked, by: 'weekday' }}
          figure={brought}
          frame={framed(csv('/breakdown', { ...asked, by: 'weekday', then: 'hour' }))}
        />
      );
    case 'map':
      return (
        <MapPicture
          asked={{ ...asked, by: 'place' }}
          figure={brought}
          frame={framed(csv('/breakdown', { ...asked, by: 'place' }))}
        />
      );
    case 'scatter':
      return (
        <ScatterPicture
          data={data}
          level={level}
          onDrill={onDrill}
          frame={framed(csv('', { ...asked, level }))}
        />
      );
  }
}

/** What was done in these days, on the days from which on it could show. */
function useOwnChanges(asked: Props['asked'], isShown: boolean) {
  const account = useAccount();
  const { first, last, campaignId } = asked;
  return useQuery({
    queryKey: [account.id, 'results', 'changes', first, last, campaignId],
    enabled: isShown,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/results/changes', {
          params: { path: { accountId: account.id }, query: { first, last, campaignId } },
          signal,
        }),
      ),
  });
}
