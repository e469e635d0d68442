// Writes the currencies that Core knows, from ISO 4217 as the package currency-codes carries it: npm run currencies.
import { writeFileSync } from 'node:fs';
import { URL } from 'node:url';
import codes from 'currency-codes';

// Funds and metals have codes too, but nobody pays for clicks in them.
const notPaid = /^(BOV|CH[EW]|COU|MXV|USN|UYI|XA[GU]|XP[DT]|XDR|XSU|XUA)$/;
const paid = codes.data.filter(
  (each) => each.digits <= 3 && each.countries.length > 0 && !notPaid.test(each.code),
);
const digits = Object.fromEntries(paid.map((each) => [each.code, each.digits]).sort());
writeFileSync(
  new URL('../../Fendrik.Core/Accounts/currencies.json', import.meta.url),
  `${JSON.stringify(digits, null, 2)}\n`,
);
