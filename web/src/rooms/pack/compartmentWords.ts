import type { TFunction } from "i18next";

/** Where a part lies, in words. */
export const compartmentWords = (t: TFunction, compartment: string) =>
  compartment === "beside"
    ? t("pack:parts.beside")
    : compartment === "cup"
      ? t("pack:parts.cup")
      : compartment;
