// Writes the languages that Core knows: the codes of ISO 639-1 with the English names that Unicode's CLDR has, as this Node carries it: npm run languages.
import { writeFileSync } from 'node:fs';
import { URL } from 'node:url';

const names = new Intl.DisplayNames(['en'], { type: 'language', fallback: 'none' });
const letters = [...'abcdefghijklmnopqrstuvwxyz'];
// Codes that are no language, or only another's old code, are left out.
const codes = letters
  .flatMap((one) => letters.map((other) => one + other))
  .filter((code) => Intl.getCanonicalLocales(code)[0] === code && names.of(code));
writeFileSync(
  new URL('../../Fendrik.Core/Accounts/languages.json', import.meta.url),
  `${JSON.stringify(Object.fromEntries(codes.map((code) => [code, names.of(code)])), null, 2)}\n`,
);
