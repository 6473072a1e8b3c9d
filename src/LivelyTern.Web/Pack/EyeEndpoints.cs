using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Core.Pack;
using LivelyTern.Data;
using LivelyTern.Data.Cook;
using LivelyTern.Data.Foods;
using LivelyTern.Data.Pack;
using LivelyTern.Web.Aim;
using LivelyTern.Web.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LivelyTern.Web.Pack;

/// <summary>A portion that was guessed, and what the scale said then: of a food as typed, or of a dish.</summary>
/// <param name="RealGrams">What it weighed.</param>
/// <param name="Text">"180 g boiled rice": the guess; null for a dish.</param>
/// <param name="FoodId">The food chosen; null where the words say enough.</param>
/// <param name="BatchId">The dish; null for a food.</param>
/// <param name="GuessGrams">The guess of a dish.</param>
/// <param name="CookId">Who guessed.</param>
public sealed record EyeTryRequest(
    decimal RealGrams, string? Text = null, string? FoodId = null, Guid? BatchId = null, decimal? GuessGrams = null, Guid? CookId = null);

/// <summary>A try.</summary>
/// <param name="Id">Which.</param>
/// <param name="On">The household's day then.</param>
/// <param name="What">What it was.</param>
/// <param name="Group">What kind of food; null for a dish.</param>
/// <param name="GuessGrams">What it was taken for.</param>
/// <param name="RealGrams">What it weighed.</param>
/// <param name="OffKcal">What the difference holds: more than guessed above 0.</param>
public sealed record EyeTryView(
    Guid Id, DateOnly On, string What, FoodGroup? Group, decimal GuessGrams, decimal RealGrams, decimal OffKcal);

/// <summary>A kind of food and how well the eye weighs it.</summary>
/// <param name="Group">Which; null for dishes.</param>
/// <param name="Tries">How often it was tried.</param>
/// <param name="Bias">How much more there is than the eye takes it for: 0.1 for a tenth; below 0 for less.</param>
/// <param name="Kcal">What a portion of it holds, as they were.</param>
/// <param name="EitherWay">How far off a portion is two times in three, in kcal.</param>
/// <param name="Pays">Whether weighing it pays.</param>
public sealed record EyeKindView(FoodGroup? Group, int Tries, decimal Bias, decimal Kcal, decimal EitherWay, bool Pays);

/// <summary>How well a cook's eye weighs.</summary>
/// <param name="Kinds">The kinds tried often enough, where weighing pays most first.</param>
/// <param name="Few">From how many tries of a kind on it is told.</param>
/// <param name="Tries">The latest tries.</param>
public sealed record EyeView(IReadOnlyList<EyeKindView> Kinds, int Few, IReadOnlyList<EyeTryView> Tries);

/// <summary>Try your eye: guess, then put it on the scale.</summary>
public static class EyeEndpoints
{
    private const int MostShown = 20;

    /// <summary>Maps <c>/api/pack/eye</c>.</summary>
    public static void MapEye(this IEndpointRouteBuilder api)
    {
        var eye = api.MapGroup("/pack/eye").WithTags("Pack");
        eye.MapGet("", async (Guid? cookId, EyeStore store, TimeProvider clock) =>
        {
            var tries = await store.OfAsync(cookId);
            return new EyeView(
                [.. EyeKind.Of([.. tries.Select(row => row.Read())]).Select(Show)], EyeSpread.Few,
                [.. tries.Take(MostShown).Select(row => Show(row, clock))]);
        }).WithName("getEye");
        eye.MapPost("", AddAsync).WithName("tryEye");
        eye.MapDelete("/{id:guid}", async Task<Results<Ok<Guid>, ProblemHttpResult>> (Guid id, EyeStore store) =>
            (await store.RemoveAsync(id)).Answer(gone => gone)).WithName("removeEyeTry");
    }

    private static async Task<Results<Ok<EyeTryView>, ProblemHttpResult>> AddAsync(
        EyeTryRequest body, EyeStore store, FoodStore foods, BatchStore batches, BatchReader reader, TimeProvider clock)
    {
        if (body.BatchId is null == body.Text is null)
            return Answers.Problem([new("eye-unclear", "text", "Say what it is: a food with your guess, or a dish.")]);
        if (body.BatchId is { } id)
        {
            if (await batches.FindAsync(id) is not { } row) return Answers.Problem([Stale.Gone("batch")]);
            var dish = await reader.ReadAsync(row);
            var kcal = dish.Weight is null ? 0 : dish.Holding(new(1)).Totals[Nutrient.Energy].Known;
            return await AddAsync(dish.RecipeName, new(null, new(body.GuessGrams ?? 0), new(body.RealGrams), kcal));
        }

        var known = await foods.AllAsync();
        var line = FoodLine.Read(body.Text!, known, body.FoodId is null ? null : known.Find(body.FoodId)).AsOne;
        if (line.Ingredient is not { } guess) return LineView.NotUnderstood(line);
        var perGram = (guess.Food.Per100g.Energy ?? 0) / 100;
        return await AddAsync(guess.Food.Name, new(guess.Food.Group, guess.Weight, new(body.RealGrams), perGram));

        async Task<Results<Ok<EyeTryView>, ProblemHttpResult>> AddAsync(string what, EyeTry one) =>
            (await store.AddAsync(body.CookId, what, one)).Answer(row => Show(row, clock));
    }

    private static EyeTryView Show(EyeTryRow row, TimeProvider clock)
    {
        var one = row.Read();
        return new(
            row.Id, clock.DayOf(row.At), row.What, row.Group,
            one.Guess.Value, one.Real.Value, (one.Real - one.Guess).Value * one.KcalPerGram);
    }

    private static EyeKindView Show(EyeKind kind) =>
        new(kind.Group, kind.Eye.Tries, kind.Eye.Bias, kind.Kcal, kind.EitherWay, kind.Pays);
}
