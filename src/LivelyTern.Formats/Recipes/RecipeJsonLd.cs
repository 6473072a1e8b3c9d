using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using System.Xml;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Recipes;
using LivelyTern.Core.Recipes.Steps;

namespace LivelyTern.Formats.Recipes;

/// <summary>
/// schema.org/Recipe as JSON-LD, read and written. Source: https://schema.org/Recipe, https://schema.org/NutritionInformation; durations as
/// ISO 8601.
/// </summary>
public static class RecipeJsonLd
{
    private static readonly Regex BreakTagPattern = new(@"<br\s*/?>|</p>|</li>", RegexOptions.NonBacktracking | RegexOptions.IgnoreCase);

    private const int Deepest = 32;

    // What a recipe of ours has no place for and nobody misses; everything else unknown is listed.
    private static readonly HashSet<string> Silent = new(StringComparer.Ordinal)
    {
        "@context", "@type", "@id", "mainEntityOfPage", "url", "isPartOf", "potentialAction", "inLanguage",
    };

    private static readonly JsonSerializerOptions Printed =
        new() { WriteIndented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <summary>
    /// Reads the recipes of one or more JSON-LD blocks, so many as are looked through by hand; a broken block is told and the others are
    /// read.
    /// </summary>
    /// <param name="blocks">The blocks.</param>
    /// <param name="stop">Ends the reading.</param>
    public static ReadRecipes Read(IReadOnlyList<string> blocks, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(blocks);
        var (recipes, all) = (new List<ReadRecipe>(), 0);
        var plain = new PlainTexts(stop);
        var remarks = new List<string>();
        for (var i = 0; i < blocks.Count; i++)
        {
            try
            {
                var node = JsonNode.Parse(
                    blocks[i], null,
                    new JsonDocumentOptions { AllowTrailingCommas = true, CommentHandling = JsonCommentHandling.Skip, MaxDepth = 64 });
                foreach (var found in Find(node, 0))
                {
                    stop.ThrowIfCancellationRequested();
                    if (all++ < RecipeFiles.MostRecipes) recipes.Add(Map(found, plain));
                }
            }
            catch (Exception error) when (error is JsonException or ArgumentException or InvalidOperationException)
            {
                // A key that is there twice is found only when the object is first looked into.
                remarks.Add(blocks.Count == 1
                    ? "The JSON is broken: it ends early or a quote is missing."
                    : $"Block {i + 1} of {blocks.Count} is broken and was not read.");
            }
        }

        if (all > recipes.Count) remarks.Add($"Of {all} recipes the first {recipes.Count} were read.");
        if (recipes.Count == 0 && remarks.Count == 0) remarks.Add("There is JSON here, but no recipe in it.");
        return new(recipes, remarks);
    }

    /// <summary>A recipe as JSON-LD, with what one portion holds.</summary>
    /// <param name="written">As the cook wrote it.</param>
    /// <param name="recipe">The same, read.</param>
    public static string Write(WrittenRecipe written, Recipe recipe)
    {
        ArgumentNullException.ThrowIfNull(written);
        ArgumentNullException.ThrowIfNull(recipe);
        var totals = recipe.Portion.Totals;
        var nutrition = new JsonObject
        {
            ["@type"] = "NutritionInformation",
            ["servingSize"] = Say(recipe.Weight.Value / recipe.Yield.Portions) + " g",
        };
        void Add(string name, Nutrient nutrient, string unit, decimal factor = 1)
        {
            // What is only known "at least" is left out: the standard has no word for it.
            if (totals[nutrient].IsComplete) nutrition[name] = Say(totals[nutrient].Known * factor) + " " + unit;
        }

        Add("calories", Nutrient.Energy, "calories");
        Add("proteinContent", Nutrient.Protein, "g");
        Add("fatContent", Nutrient.Fat, "g");
        Add("saturatedFatContent", Nutrient.SaturatedFat, "g");
        Add("carbohydrateContent", Nutrient.Carbohydrate, "g");
        Add("sugarContent", Nutrient.Sugars, "g");
        Add("fiberContent", Nutrient.Fibre, "g");
        Add("sodiumContent", Nutrient.Salt, "mg", 1000m / Core.Foods.Label.SaltPerSodium);

        var yields = new JsonArray(recipe.Yield.Portions.ToString(CultureInfo.InvariantCulture), $"{recipe.Yield.Portions} portions");
        if (recipe.Yield.IsPutTogether) yields = new JsonArray("1", $"1 box ({SaidYield.PutTogether})");
        if (recipe.Yield.Pieces is { } pieces)
            yields.Add($"{pieces} pieces" + (recipe.Yield.MayHalve ? $" ({SaidYield.MayBeHalved})" : ""));
        if (recipe.Yield.CookedGrams is { } cooked) yields.Add($"{Say(cooked)} g");
        if (recipe.Yield.VolumeMl is { } volume) yields.Add($"{Say(volume)} ml");
        var steps = written.Steps ?? [];
        var node = new JsonObject
        {
            ["@context"] = "https://schema.org",
            ["@type"] = "Recipe",
            ["name"] = written.Name,
            ["recipeYield"] = yields,
            ["recipeIngredient"] = new JsonArray([.. written.Lines.Where(line => !line.IsOut).Select(line => (JsonNode)line.Text)]),
            ["recipeInstructions"] = new JsonArray([.. steps.Select(HowTo)]),
            ["nutrition"] = nutrition,
        };
        var (hands, waits) = (SaidMinutes(written.ToDo, isHandsOn: true), SaidMinutes(written.ToDo, isHandsOn: false));
        var total = written.ToDo.Any(step => step.Way.IsAbout) ? 0 : hands + waits;
        var times = new[] { ("prepTime", hands), ("cookTime", waits), ("totalTime", total) };
        foreach (var (name, minutes) in times)
        {
            if (minutes > 0) node[name] = XmlConvert.ToString(TimeSpan.FromMinutes(minutes));
        }

        // Where it is pasted into a page, no text of it ends the script it stands in.
        return node.ToJsonString(Printed).Replace("<", "\\u003c", StringComparison.Ordinal);
    }

    // What is only usual is not said to others.
    private static int SaidMinutes(IReadOnlyList<StepToDo> steps, bool isHandsOn)
    {
        var parts = steps.SelectMany(step => step.Way.Parts).Where(part => part.IsHandsOn == isHandsOn).ToList();
        return parts.Exists(part => part.IsAbout) ? 0 : parts.Sum(part => part.Minutes);
    }

    private static JsonNode HowTo(RecipeStep step)
    {
        var done = step.DoneWhen is { Length: > 0 } when ? $"Done when: {when}" : "";
        string[] parts = [step.Text, done];
        return new JsonObject { ["@type"] = "HowToStep", ["text"] = string.Join(' ', parts.Where(part => part.Length > 0)) };
    }

    private static string Say(decimal number) => number.ToString("0.#", CultureInfo.InvariantCulture);

    private static IEnumerable<JsonObject> Find(JsonNode? node, int depth)
    {
        if (depth > Deepest) yield break;
        if (node is JsonArray list)
        {
            foreach (var recipe in list.SelectMany(item => Find(item, depth + 1))) yield return recipe;
        }
        else if (node is JsonObject thing)
        {
            if (Texts(thing["@type"]).Any(IsRecipe))
            {
                yield return thing;
                yield break;
            }

            string[] within = ["@graph", "mainEntity", "itemListElement", "item"];
            foreach (var recipe in within.SelectMany(name => Find(thing[name], depth + 1))) yield return recipe;
        }
    }

    private static bool IsRecipe(string type) =>
        type is "Recipe" or "schema:Recipe" or "https://schema.org/Recipe" or "http://schema.org/Recipe";

    // Taking the tags off a text takes a parser: so many texts of a file may have some. What comes after those is told, not read.
    private sealed class PlainTexts(CancellationToken stop)
    {
        private int left = 5_000;

        public string? Of(string text)
        {
            stop.ThrowIfCancellationRequested();
            return RecipeHtml.HasTags(text) && left-- <= 0 ? null : RecipeHtml.Plain(text);
        }
    }

    private static ReadRecipe Map(JsonObject thing, PlainTexts plain)
    {
        var missed = new List<string>();
        var lines = new List<WrittenLine>();
        var steps = new List<RecipeStep>();
        var said = new SaidYield();
        var (prep, cook, total) = ((int?)null, (int?)null, (int?)null);
        var name = "";
        foreach (var (key, value) in thing)
        {
            switch (key)
            {
                case "name":
                    name = plain.Of(Texts(value).FirstOrDefault() ?? "") ?? "";
                    break;
                case "recipeIngredient" or "ingredients":
                    foreach (var text in Texts(value).Select(plain.Of).Where(text => text is not ""))
                    {
                        if (text is null) missed.Add(key);
                        else if (text.Length > WrittenRecipe.LongestLine) missed.Add($"{key}: {Cut(text)}");
                        else if (lines.Count >= WrittenRecipe.MostLines) missed.Add($"{key}: {text}");
                        else lines.Add(new(text));
                    }

                    break;
                case "recipeInstructions":
                    Instructions(value, steps, missed, plain, 0);
                    break;
                case "recipeYield" or "yield":
                    foreach (var text in Texts(value))
                    {
                        if (plain.Of(text) is { } yields && SaidYield.Read(yields) is { } more) said = said.Or(more);
                        else missed.Add($"{key}: {Cut(text)}");
                    }

                    break;
                case "prepTime":
                    prep = Minutes(key, value, missed);
                    break;
                case "cookTime":
                    cook = Minutes(key, value, missed);
                    break;
                case "totalTime":
                    total = Minutes(key, value, missed);
                    break;
                default:
                    if (!Silent.Contains(key) && value is not null)
                        missed.Add($"{key}: {Cut(string.Join(", ", Texts(value).DefaultIfEmpty(value.ToJsonString())))}");
                    break;
            }
        }

        Times(steps, prep, cook, total, missed);
        return new(name, lines, said.ToYield(), steps, missed);
    }

    private static void Times(List<RecipeStep> steps, int? prep, int? cook, int? total, List<string> missed)
    {
        var waits = cook ?? (total is { } all ? Math.Max(0, all - (prep ?? 0)) : null);
        if (steps.Count == 0)
        {
            if (prep is not null) missed.Add($"prepTime: {prep} minutes");
            if (waits is not null) missed.Add($"cookTime: {waits} minutes");
            return;
        }

        var shared = SaidTotals.Share(steps, prep, waits);
        steps.Clear();
        steps.AddRange(shared);
    }

    private static void Instructions(JsonNode? node, List<RecipeStep> steps, List<string> missed, PlainTexts plain, int depth)
    {
        if (depth > Deepest || node is null) return;
        switch (node)
        {
            case JsonArray list:
                foreach (var item in list) Instructions(item, steps, missed, plain, depth + 1);
                break;
            case JsonObject thing when thing["itemListElement"] is { } inner:
                Instructions(inner, steps, missed, plain, depth + 1);
                break;
            case JsonObject thing:
                Step(plain.Of(Texts(thing["text"]).Concat(Texts(thing["name"])).FirstOrDefault() ?? ""));
                break;
            default:
                // One text for all: a line each.
                foreach (var text in Texts(node).Select(text => plain.Of(BreakTagPattern.Replace(text, "\n"))))
                {
                    if (text is null) Step(null);
                    foreach (var line in text?.Split('\n') ?? []) Step(line.Trim());
                }

                break;
        }

        void Step(string? text)
        {
            if (text is null) missed.Add("recipeInstructions");
            else if (text.Length == 0) return;
            else if (steps.Count >= WrittenRecipe.MostSteps || text.Length > 2000) missed.Add($"recipeInstructions: {Cut(text)}");
            else steps.Add(new(text));
        }
    }

    private static int? Minutes(string key, JsonNode? value, List<string> missed)
    {
        foreach (var text in Texts(value))
        {
            try
            {
                return (int)Math.Clamp(XmlConvert.ToTimeSpan(text.Trim().ToUpperInvariant()).TotalMinutes, 0, 10_080);
            }
            catch (Exception error) when (error is FormatException or OverflowException)
            {
                missed.Add($"{key}: {Cut(text)}");
            }
        }

        return null;
    }

    private static IEnumerable<string> Texts(JsonNode? node) => node switch
    {
        JsonArray list => list.SelectMany(Texts),
        JsonValue value when value.TryGetValue<string>(out var text) => [text],
        JsonValue value => [value.ToJsonString()],
        JsonObject thing => Texts(thing["@value"] ?? thing["name"] ?? thing["url"] ?? thing["text"]),
        _ => [],
    };

    private static string Cut(string text) => text.Length <= 200 ? text : text[..200] + " …";
}
