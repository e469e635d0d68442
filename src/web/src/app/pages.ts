/** The phases in the order of the work, with the pages that are built. */
export const phases = [
  {
    name: 'Plan',
    pages: [
      { name: 'Intake', path: 'plan/intake' },
      { name: 'Structure', path: 'plan/structure' },
      { name: 'Negatives', path: 'plan/negatives' },
    ],
  },
  {
    name: 'Write',
    pages: [
      { name: 'Ads', path: 'write/ads' },
      { name: 'Extensions', path: 'write/extensions' },
      { name: 'Links', path: 'write/links' },
    ],
  },
  {
    name: 'Price',
    pages: [
      { name: 'Settings', path: 'price/settings' },
      { name: 'Budgets', path: 'price/budgets' },
      { name: 'Bids', path: 'price/bids' },
      { name: 'Hours', path: 'price/hours' },
    ],
  },
  {
    name: 'Ship',
    pages: [
      { name: 'Checks', path: 'ship/checks' },
      { name: 'Trace', path: 'ship/trace' },
      { name: 'Changes', path: 'ship/changes' },
      { name: 'History', path: 'ship/history' },
    ],
  },
  {
    name: 'Learn',
    pages: [
      { name: 'Results', path: 'learn/results' },
      { name: 'Search terms', path: 'learn/terms' },
      { name: 'Calls', path: 'learn/calls' },
      { name: 'Conversions', path: 'learn/conversions' },
    ],
  },
  { name: 'Improve', pages: [] },
] as const satisfies readonly { name: string; pages: readonly { name: string; path: string }[] }[];

export const allPages = phases.flatMap((phase) =>
  phase.pages.map((page) => ({ ...page, phase: phase.name as string })),
);
