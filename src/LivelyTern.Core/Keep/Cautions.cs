namespace LivelyTern.Core.Keep;

/// <summary>A caution, shown at the step it belongs to until somebody has read it, and found again under Keep.</summary>
/// <param name="Code">A stable name.</param>
/// <param name="Title">A few words.</param>
/// <param name="Text">What to do.</param>
/// <param name="Source">Who says so.</param>
public sealed record Caution(string Code, string Title, string Text, string Source)
{
    /// <summary>The cautions of keeping food safe. Local food-safety rules, and a doctor's or dietitian's advice, come first.</summary>
    public static IReadOnlyList<Caution> All { get; } =
    [
        new("cool-fast", "Cool it fast, then close it",
            "From 57 °C to 21 °C within two hours, and to 5 °C within six in all. Shallow boxes cool fastest. Close the lid when the food "
            + "is cold: warm under a lid it sweats and ices up.", TwoStages.Source),
        new("two-hours", "Not longer than two hours outside",
            "Between 4 and 60 °C germs grow fast. Food stays out for two hours at most, for one where it is hotter than 32 °C.",
            "USDA FSIS"),
        new("rice", "Rice: cool it within the hour, keep it short",
            "Spores in rice survive cooking and grow in the warm. Cool it within an hour, keep it cold, and eat it within a day unless it "
            + "is frozen.", "UK Food Standards Agency (from memory)"),
        new("thaw-cold", "Thaw in the fridge",
            "Never on the counter: the outside is warm for hours while the middle is still ice. Eat it within 24 hours of thawing, and "
            + "don't freeze it again once it was warm.", "USDA FSIS; UK Food Standards Agency (from memory)"),
        new("reheat", "Heat it until it steams",
            "Reheat to 74 °C (165 °F) in the middle, steaming hot all through, and only once. In Scotland the law says 82 °C.",
            "USDA FSIS safe minimum internal temperatures; Food Standards Scotland (from memory)"),
        new("fridge-cold", "Keep the fridge at 4 to 5 °C or below",
            "And the freezer at -18 °C. A box that is warm warms those beside it: leave room around it.",
            "FoodSafety.gov; UK Food Standards Agency (from memory)"),
        new("past-its-day", "Past its last day: when in doubt, throw it out",
            "Food that makes people ill often looks, smells and tastes as it should. The days here are never made longer by the program.",
            "FoodSafety.gov (from memory)"),
        new("done-inside", "Cooked through: ask the probe",
            "In the middle, poultry 74 °C (165 °F); mince and egg dishes 71 °C (160 °F); fish, and whole pieces of beef, pork and lamb "
            + "63 °C (145 °F), the meat with three minutes' rest. Colour says nothing.",
            "USDA FSIS safe minimum internal temperatures"),
        new("raw-poultry", "Don't rinse raw poultry",
            "Rinsing spreads its germs over the sink and what stands around it; the heat kills them. Give it a board and a knife of its "
            + "own, and wash your hands after.", "USDA FSIS; UK Food Standards Agency (from memory)"),
        new("kidney-beans", "Dry kidney beans: boil them first",
            "Soak them for five hours, pour that water away, and boil them in fresh water for at least half an hour before they simmer "
            + "on. A slow cooker does not get hot enough: half cooked they make people ill.",
            "US FDA, Bad Bug Book, 2nd edition (from memory)"),
        new("pressure", "Let the pressure off first",
            "Open the lid only when the pressure is gone, and tilt it away from you: the steam scalds. Don't fill the pot more than two "
            + "thirds, half with beans or grains that foam.", "Common practice, no published source; the pot's own book comes first"),
        new("silicone", "Silicone bends",
            "Stand the mould on a tray before it is filled, and carry the tray: hot batter runs over where the mould gives way.",
            "Common practice, no published source"),
    ];
}
