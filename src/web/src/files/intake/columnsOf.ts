import type { Schemas } from '../../api/client';

/** What a person may change of how a list is read. */
export function columnsOf(view: Schemas['IntakeView']): Schemas['IntakeColumns'] {
  const { hasHeader, columns, defaultCampaign, defaultAdGroup, bareMatch, negativeMatch, intent } = view;
  return {
    hasHeader,
    columns,
    defaultCampaign,
    defaultAdGroup,
    bareMatch,
    negativeMatch,
    intent,
    emptyClears: view.emptyClears,
    newPaused: view.newPaused,
    bareMatchChosen: false,
    guessAnew: false,
  };
}

/** What shows a list and changes how it is read. */
export interface ColumnsProps {
  intake: Schemas['IntakeView'];
  onColumns: (columns: Schemas['IntakeColumns']) => void;
}
