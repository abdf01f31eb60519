const formats = new Map<string, Intl.NumberFormat>();

function format(value: number | bigint, least: number, most: number): string {
  const key = `${least} ${most}`;
  const digits = { minimumFractionDigits: least, maximumFractionDigits: most };
  const known = formats.get(key) ?? new Intl.NumberFormat("en-GB", digits);
  formats.set(key, known);
  return known.format(value);
}

/** A number for a person: "35,404", with at most so many digits behind the point. */
export const formatNumber = (value: number | bigint, most = 0): string => format(value, 0, most);

/** A measured number for a person, always with so many digits behind the point: "1,349.0". */
export const formatFixed = (value: number, digits: number): string => format(value, digits, digits);

/** A sum of money for a person, its sign or code in front: "£742", "EUR 742". */
export const formatMoney = (value: number, currency: string): string =>
  /^[A-Za-z]/.test(currency)
    ? `${currency}\u00a0${formatNumber(value)}`
    : `${currency}${formatNumber(value)}`;
