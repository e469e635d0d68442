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
