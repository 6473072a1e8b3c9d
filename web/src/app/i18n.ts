import i18next from "i18next";
import { initReactI18next } from "react-i18next";
import { aim } from "../rooms/aim/words";
import { eat } from "../rooms/eat/words";
import { pack } from "../rooms/pack/words";
import { plan } from "../rooms/plan/words";
import { recipes } from "../rooms/recipes/words";
import { app } from "./words";

void i18next.use(initReactI18next).init({
  lng: "en",
  resources: { en: { app, aim, recipes, plan, pack, eat } },
  defaultNS: "app",
  interpolation: { escapeValue: false },
});
