/** A variable is put into a template: the page at its beginning, everything else into the query, where the cursor is or at the end. */
export function added(template: string, variable: string, at: number): string {
  if (variable === 'page') return template.includes('page}') ? template : `{+page}${template}`;
  // Into an expression of the query that is there, if the cursor stands in none.
  const open = /\{[?&][^}]*\}(?=[^{]*$)/.exec(template);
  if (open) {
    const end = open.index + open[0].length - 1;
    return `${template.slice(0, end)},${variable}${template.slice(end)}`;
  }
  const place = template === '' ? 0 : Math.max(0, Math.min(at, template.length));
  const before = template === '' ? '{+page}' : template.slice(0, place);
  return `${before}{${before.includes('?') ? '&' : '?'}${variable}}${template.slice(place)}`;
}
