namespace LivelyTern.Core.Recipes.Steps;

/// <summary>What a cook's verb tells a schedule.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Words">The words that mean it, in lower case; of two words the second follows the first.</param>
/// <param name="IsHandsOn">Whether a cook stands by with both hands.</param>
/// <param name="Minutes">The minutes it usually takes where a sentence gives none.</param>
/// <param name="Uses">What it occupies.</param>
/// <param name="Grows">How the minutes grow with the batch.</param>
public sealed record StepVerb(
    string Name, IReadOnlyList<string> Words, bool IsHandsOn, int Minutes, IReadOnlyList<Occupies> Uses,
    Grows Grows = Grows.WithTheBatch);

/// <summary>
/// The verbs of recipes. The minutes are what they usually take for a batch of a household: common practice, no published source; a cook's
/// own times replace them.
/// </summary>
public static class StepVerbs
{
    /// <summary>Food comes to oven heat, or the oven does.</summary>
    public static StepVerb Preheat { get; } = Waits("preheat", 12, [Occupies.Oven], "preheat", "pre-heat");

    /// <summary>In the oven.</summary>
    public static StepVerb Bake { get; } = Waits("bake", 30, [Occupies.Oven], "bake", "rebake");

    /// <summary>In the slow cooker.</summary>
    public static StepVerb SlowCook { get; } = Waits("slow-cook", 360, [Occupies.SlowCooker], "slow-cook", "slow cook");

    /// <summary>Under pressure.</summary>
    public static StepVerb Pressure { get; } = Waits(
        "pressure-cook", 10, [Occupies.PressureCooker], "pressure-cook", "pressure cook", "pressure");

    /// <summary>The pressure goes by itself.</summary>
    public static StepVerb Release { get; } = Waits("release", 10, [Occupies.PressureCooker], "release", "depressurise", "depressurize");

    /// <summary>In the air fryer.</summary>
    public static StepVerb AirFry { get; } = Loads("air-fry", false, 12, [Occupies.AirFryer], "air-fry", "air fry", "airfry");

    /// <summary>In the microwave.</summary>
    public static StepVerb Microwave { get; } = Waits("microwave", 5, [Occupies.Microwave], "microwave", "nuke", "zap");

    /// <summary>In the waffle iron, a cook beside it.</summary>
    public static StepVerb Waffle { get; } = Loads("waffle", true, 5, [Occupies.WaffleIron], "waffle");

    /// <summary>In the blender.</summary>
    public static StepVerb Blend { get; } = Hands(
        "blend", 3, [Occupies.Blender], Grows.WithTheBatch, "blend", "blitz", "purée", "puree", "whizz", "whiz", "liquidise", "liquidize",
        "pulse", "process");

    /// <summary>On the stove, by itself.</summary>
    public static StepVerb Simmer { get; } = Waits(
        "simmer", 20, [Occupies.Ring], "simmer", "bubble", "stew", "braise", "poach", "parboil", "blanch", "reduce", "boil", "steam");

    /// <summary>On the stove, a cook beside it.</summary>
    public static StepVerb Fry { get; } = Hands(
        "fry", 8, [Occupies.Ring], Grows.WithTheLoads, "fry", "sauté", "saute", "brown", "sear", "soften", "sweat", "stir-fry", "stir fry",
        "caramelise", "caramelize", "scramble", "toast", "colour", "color", "griddle", "crisp");

    /// <summary>Warming something through on the stove.</summary>
    public static StepVerb Warm { get; } = Hands(
        "warm", 3, [Occupies.Ring], Grows.WithTheBatch, "warm", "heat", "reheat", "melt", "deglaze", "scald");

    /// <summary>It cools in the open.</summary>
    public static StepVerb Cool { get; } = Waits("cool", 30, [], "cool", "cool down");

    /// <summary>In the fridge.</summary>
    public static StepVerb Chill { get; } = Waits("chill", 60, [Occupies.Fridge], "chill", "refrigerate");

    /// <summary>In the freezer.</summary>
    public static StepVerb Freeze { get; } = Waits("freeze", 120, [], "freeze");

    /// <summary>It stands by itself.</summary>
    public static StepVerb Rest { get; } = Waits(
        "rest", 15, [], "rest", "stand", "leave", "sit", "prove", "proof", "rise", "set", "infuse", "steep", "drip", "drain", "thaw",
        "defrost", "marinate", "marinade", "soak", "sprout", "ferment", "wait", "macerate", "steam dry", "steam-dry");

    /// <summary>Cutting small: longer the more there is.</summary>
    public static StepVerb Chop { get; } = Hands(
        "chop", 5, [Occupies.Board], Grows.WithTheAmount, "chop", "dice", "slice", "cube", "mince", "cut", "shred", "halve",
        "quarter", "trim", "julienne", "shave", "crush", "spiralize", "spiralise", "debone", "fillet", "carve");

    /// <summary>Grating.</summary>
    public static StepVerb Grate { get; } = Hands("grate", 4, [Occupies.Board], Grows.WithTheAmount, "grate");

    /// <summary>Peeling, washing and the like: longer the more there is.</summary>
    public static StepVerb Clean { get; } = Hands(
        "clean", 4, [], Grows.WithTheAmount, "wash", "rinse", "peel", "scrub", "core", "deseed", "seed", "shell", "pit", "stone", "hull",
        "pick", "top and tail", "zest", "juice", "squeeze", "pat");

    /// <summary>One piece after another.</summary>
    public static StepVerb Shape { get; } = Hands(
        "shape", 10, [], Grows.WithTheAmount, "shape", "roll", "form", "fill", "stuff", "thread", "skewer", "wrap", "pipe", "bread", "ice",
        "decorate", "scoop", "spoon", "divide", "portion", "assemble", "layer", "press", "mould", "mold", "pack");

    /// <summary>Working with what is in the bowl.</summary>
    public static StepVerb Mix { get; } = Hands(
        "mix", 4, [], Grows.WithTheBatch, "mix", "combine", "whisk", "beat", "knead", "mash", "cream", "rub", "whip", "toss", "fold",
        "massage", "work");

    /// <summary>Small moves of a minute or so.</summary>
    public static StepVerb Add { get; } = Hands(
        "add", 1, [], Grows.WithTheBatch, "add", "stir", "pour", "season", "sprinkle", "scatter", "drizzle", "brush", "spread", "tip",
        "put", "place", "lay", "arrange", "line", "grease", "oil", "butter", "transfer", "return", "remove", "lift", "turn", "flip",
        "discard", "strain", "serve", "garnish", "coat", "dust", "adjust", "taste", "open", "measure", "weigh", "dissolve", "break",
        "crack", "crumble", "drop", "ladle", "slide", "chuck", "bung", "throw", "load", "baste", "cover", "flake", "skim", "dot", "stick",
        "pop", "shove", "sift", "tear", "shake", "check", "swirl", "loosen", "finish");

    /// <summary>Bringing a pot to the boil.</summary>
    public static StepVerb BringToTheBoil { get; } = Waits("bring to the boil", 10, [Occupies.Ring]);

    /// <summary>Heat without a word of where: the words beside it tell.</summary>
    public static StepVerb Cook { get; } = Waits("cook", 15, [Occupies.Ring], "cook", "do", "give", "let", "keep", "continue", "go");

    /// <summary>In the oven, or on the stove where the words beside it say so.</summary>
    public static StepVerb Roast { get; } = Waits("roast", 35, [Occupies.Oven], "roast", "grill", "broil");

    /// <summary>All of them.</summary>
    public static IReadOnlyList<StepVerb> All { get; } =
    [
        Preheat, Bake, Roast, SlowCook, Pressure, Release, AirFry, Microwave, Waffle, Blend, Simmer, Fry, Warm, Cool, Chill, Freeze, Rest,
        Chop, Grate, Clean, Shape, Mix, Add, BringToTheBoil, Cook,
    ];

    private static readonly Dictionary<string, StepVerb> ByWord =
        All.SelectMany(verb => verb.Words.Select(word => (word, verb)))
            .ToDictionary(pair => pair.word, pair => pair.verb, StringComparer.Ordinal);

    /// <summary>The verb a word means, or null.</summary>
    /// <param name="word">One word, or two, in lower case.</param>
    public static StepVerb? Find(string word) => ByWord.GetValueOrDefault(word);

    private static StepVerb Waits(string name, int minutes, IReadOnlyList<Occupies> uses, params string[] words) =>
        new(name, words, false, minutes, uses);

    private static StepVerb Hands(string name, int minutes, IReadOnlyList<Occupies> uses, Grows grows, params string[] words) =>
        new(name, words, true, minutes, uses, grows);

    private static StepVerb Loads(string name, bool isHandsOn, int minutes, IReadOnlyList<Occupies> uses, params string[] words) =>
        new(name, words, isHandsOn, minutes, uses, Grows.WithTheLoads);
}
