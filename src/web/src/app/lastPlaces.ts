/** Parameters that point at something once and are not gone back to. */
const once = ['focus', 'field', 'add', 'takeOut', 'campaign', 'adGroup', 'step'];
const keyOf = (path: string) => `fendrik.place.${path}`;

/** Remembers how a page was looked at, for whoever comes back to it by its name. */
export function rememberPlace(path: string, parameters: URLSearchParams) {
  const kept = new URLSearchParams(parameters);
  for (const name of once) kept.delete(name);
  window.sessionStorage.setItem(keyOf(path), kept.toString());
}

/** How a page was looked at last in this tab. */
export function lastPlace(path: string): URLSearchParams {
  return new URLSearchParams(window.sessionStorage.getItem(keyOf(path)) ?? '');
}
