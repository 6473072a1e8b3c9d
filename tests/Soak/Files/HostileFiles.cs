using System.IO.Compression;
using System.Text;

namespace LivelyTern.Soak.Files;

/// <summary>What a file of some kind is like, and what becomes of it in hands that mean no good.</summary>
public sealed class HostileFiles(Random chance)
{
    private static readonly string[] Recipes =
    [
        """{"@context": "https://schema.org", "@type": "Recipe", "name": "Harbour soup", "recipeYield": "6", "prepTime": "PT20M", "recipeIngredient": ["600 g red lentils, dry", "2 x 400 g tin chopped tomatoes"], "recipeInstructions": [{"@type": "HowToStep", "text": "Simmer 30 minutes."}]}""",
        "<html><body><script type=\"application/ld+json\">{\"@type\": \"Recipe\", \"name\": \"Soup\", \"recipeIngredient\": [\"2 eggs\"]}</script><p>a<b>c</p></b></body></html>",
        "Oat bake\n\nServes 4\n\nIngredients:\n400 g rolled oats\n4 eggs\n\nFor the sauce:\n1/2 cup milk\n\nMethod\n1. Mix.\n2. Bake at 180 °C for 40 minutes.\n",
        "# Stew\n\n- 500 g carrots\n- 1 onion\n\n1. Chop.\n2. Simmer.\n",
    ];

    private static readonly string[] Tables =
    [
        "name,energy (kcal),protein,fat,carbohydrate,fibre,sodium (mg)\nOats,370,13,7,60,10,400\nMilk,64,3.3,3.6,4.8,0,40\n",
        "name;kcal;protein;fat;carbohydrate;serving_grams\n\"Bar; dark\";200;2,5;10;20;40\n",
        """{"FoundationFoods": [{"fdcId": 21, "description": "Lentils", "foodCategory": {"description": "Legumes"}, "foodNutrients": [{"nutrient": {"number": "203", "unitName": "g"}, "amount": 24.1}, {"nutrient": {"number": "208", "unitName": "kcal"}, "amount": 352}], "foodPortions": [{"amount": 1.0, "measureUnit": {"name": "cup"}, "gramWeight": 192.0}]}, {"fdcId": 22, "description": "Peas", "foodNutrients": [{"nutrient": {"number": "208"}, "amount": 80}]}]}""",
    ];

    private static readonly (string Name, string Text)[] Set =
    [
        ("food.csv", "fdc_id,data_type,description,food_category_id\n11,sr_legacy_food,Oats,20\n12,branded_food,Bar,\n"),
        ("food_nutrient.csv", "id,fdc_id,nutrient_id,amount\n1,11,1008,379\n2,12,1008,400\n3,11,1093,6\n"),
        ("food_portion.csv", "id,fdc_id,amount,measure_unit_id,modifier,gram_weight\n1,11,2,1000,,162\n"),
        ("branded_food.csv", "fdc_id,gtin_upc,serving_size,serving_size_unit\n12,6291041500213,55,g\n"),
    ];

    private static readonly string[] Splices =
    [
        "1e-28", "7.9e28", "1e400", "-1", "NaN", "∞", "null", "[]", "{}", "\"", "'", "\0", "\r\n", "\t", ",,,,,,", ";", "<div>", "</script>", "&#0;",
        "\u202e", "🥚", "\uFEFF", "99999999999999999999", "0.00000000000000000000000001", "[[[[[[[[", "{\"a\":", "\\u0000", "½", "~~~~~~~~~~", "PT9999999999H",
    ];

    /// <summary>A recipe's file.</summary>
    public byte[] Recipe() => Bytes(Spoilt(Any(Recipes)));

    /// <summary>A table of foods, plain or in a zip.</summary>
    public byte[] Table() => chance.Next(4) switch
    {
        0 => Zip(Set.Where(_ => chance.Next(12) > 0).Select(entry => (entry.Name, chance.Next(2) == 0 ? entry.Text : Spoilt(entry.Text)))),
        1 => Zip([(Any(["a.csv", "a.json"]), Spoilt(Any(Tables)))]),
        _ => Bytes(Spoilt(Any(Tables))),
    };

    /// <summary>A backup, as this house would write it, spoilt.</summary>
    public byte[] Backup(byte[] whole) => Flipped(whole[..(chance.Next(3) == 0 ? chance.Next(whole.Length + 1) : whole.Length)]);

    private T Any<T>(T[] of) => of[chance.Next(of.Length)];

    private string Spoilt(string text)
    {
        for (var i = chance.Next(0, 4); i > 0; i--) text = SpoiltOnce(text);
        return text;
    }

    private string SpoiltOnce(string text)
    {
        var (from, to) = (chance.Next(text.Length + 1), chance.Next(text.Length + 1));
        if (from > to) (from, to) = (to, from);
        if (text.Length > 4_000_000) return text[..from];
        return chance.Next(7) switch
        {
            0 => text[..from],
            1 => text[..from] + text[to..],
            2 => text[..from] + Any(Splices) + text[from..],
            3 => text[..from] + Any(Splices) + text[Math.Min(text.Length, from + chance.Next(1, 8))..],
            4 => text[..from] + string.Concat(Enumerable.Repeat(Any(Splices), chance.Next(1, Any([10, 1_000, 60_000])))) + text[from..],
            5 => text[..from] + string.Concat(Enumerable.Repeat(text[from..to], chance.Next(1, 1 + (Any([5_000, 400_000]) / (to - from + 1))))) + text[from..],
            _ => string.Concat(text.Select(letter => char.IsAsciiDigit(letter) && chance.Next(3) == 0 ? Any(Splices) : letter.ToString())),
        };
    }

    private byte[] Bytes(string text) => chance.Next(6) switch
    {
        0 => Encoding.Unicode.GetPreamble().Concat(Encoding.Unicode.GetBytes(text)).ToArray(),
        1 => Flipped(Encoding.UTF8.GetBytes(text)),
        2 => Encoding.Latin1.GetBytes(text),
        _ => Encoding.UTF8.GetBytes(text),
    };

    private byte[] Flipped(byte[] bytes)
    {
        var other = bytes.ToArray();
        for (var i = chance.Next(0, 9); i > 0 && other.Length > 0; i--) other[chance.Next(other.Length)] = (byte)chance.Next(256);
        return other;
    }

    private byte[] Zip(IEnumerable<(string Name, string Text)> entries)
    {
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, text) in entries)
            {
                using var entry = zip.CreateEntry(name).Open();
                entry.Write(Encoding.UTF8.GetBytes(text));
            }
        }

        return chance.Next(5) == 0 ? Flipped(bytes.ToArray()) : bytes.ToArray();
    }
}
