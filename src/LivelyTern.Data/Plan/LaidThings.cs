using LivelyTern.Core.Foods;
using LivelyTern.Core.Plan;

namespace LivelyTern.Data.Plan;

/// <summary>What a thing on a day is, from the columns of which each kind fills its own.</summary>
internal static class LaidThings
{
    public static Laid Read(
        Guid? boxId, Guid? batchId, long? milligrams, string? text, Ingredient? food, decimal? giveOrTake, Hold? hold) =>
        (boxId, batchId, food, giveOrTake) switch
        {
            _ when hold is not null => hold,
            ({ } box, _, _, _) => new LaidBox(box, Milligrams.ToGrams(milligrams)),
            (_, { } batch, _, _) => new Portion(batch, Milligrams.ToGrams(milligrams ?? 0)),
            (_, _, { } meal, { } give) => new MealOut(text ?? meal.Food.Name, meal, give),
            (_, _, { } plain, _) => new PlainFood(text ?? plain.Food.Name, plain),
            _ => throw new InvalidDataException("Something that is neither a box nor a portion nor a food nor kept free lies on a day."),
        };
}
