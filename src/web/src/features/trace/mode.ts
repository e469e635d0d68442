/** Which searches the page is about. */
export type Mode = 'typed' | 'past' | 'saved' | 'list';

export const modes = [
  { value: 'typed', label: 'Typed' },
  { value: 'past', label: 'Past' },
  { value: 'saved', label: 'Saved' },
  { value: 'list', label: 'Many' },
] as const satisfies readonly { value: Mode; label: string }[];

/** What an address is about. */
export const modeOf = (address: URLSearchParams): Mode =>
  address.has('past') ? 'past' : (modes.find((mode) => mode.value === address.get('of'))?.value ?? 'typed');
