import { saveRecipe, seen, type RecipeView } from "../../api";
import { Desks } from "../../app/desk";
import { requestOf, type Sheet } from "./sheet";

/** Recipes on their way to the host. */
export const recipeDesks = new Desks<Sheet, RecipeView>({
  prefix: "tern.recipe.",
  send: async (id, version, sheet) =>
    (await saveRecipe({ path: { id }, headers: seen(version), body: requestOf(sheet) })).data!,
  isSheet: ({ lines, steps }) => Array.isArray(lines) && Array.isArray(steps),
});
