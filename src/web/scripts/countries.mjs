// Writes the countries that Core knows, from ISO 3166-1 as the package i18n-iso-countries carries it: npm run countries.
import { writeFileSync } from 'node:fs';
import { URL } from 'node:url';
import countries from 'i18n-iso-countries';
import english from 'i18n-iso-countries/langs/en.json' with { type: 'json' };

countries.registerLocale(english);
// Kosovo's code is its users' own: ISO 3166-1 leaves it to them, and has none for it.
const names = Object.entries(countries.getNames('en', { select: 'official' })).filter(
  ([code]) => code !== 'XK',
);
writeFileSync(
  new URL('../../Fendrik.Core/Places/countries.json', import.meta.url),
  `${JSON.stringify(Object.fromEntries(names.sort(([one], [other]) => one.localeCompare(other))), null, 2)}\n`,
);
