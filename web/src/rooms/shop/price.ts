const hundredths = new Intl.NumberFormat("en", { minimumFractionDigits: 2, maximumFractionDigits: 2 });

/** An amount of money with its hundredths: "2.40". */
export const price = (value: number) => hundredths.format(value);
