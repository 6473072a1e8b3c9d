using System.IO.Compression;
using System.Text;
using LivelyTern.Core.Foods;
using LivelyTern.Core.Measures;
using LivelyTern.Data.Foods;
using LivelyTern.Devices;
using LivelyTern.Formats.Foods;

namespace LivelyTern.Formats.Tests;

public sealed class FoodFileTests : IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("tern-files-").FullName;

    public void Dispose() => Directory.Delete(folder, recursive: true);

    private string File(string name, byte[] bytes)
    {
        var path = Path.Combine(folder, name);
        System.IO.File.WriteAllBytes(path, bytes);
        return path;
    }

    private string File(string name, string text) => File(name, Encoding.UTF8.GetBytes(text));

    private string Zip(string name, params (string Name, string Text)[] entries)
    {
        var path = Path.Combine(folder, name);
        using var zip = ZipFile.Open(path, ZipArchiveMode.Create);
        foreach (var (entry, text) in entries)
        {
            using var writer = new StreamWriter(zip.CreateEntry(entry).Open());
            writer.Write(text);
        }

        return path;
    }

    private static List<ImportedRow> Rows(string path, CsvMapping? mapping = null) => [.. FoodFiles.Open(path, mapping).Rows()];

    [Theory]
    [InlineData("name,energy (kcal),protein,fat,carbohydrate,fibre,sodium (mg)\nOats,370,13,7,60,10,400\n")]
    [InlineData("\uFEFFName;Energy kcal;Protein;Fat;Carbohydrate;Fibre;Sodium mg\n\"Oats\";370;13,0;7;60;10;400\n")] // a mark, semicolons, decimal commas
    [InlineData("Description\tkcal\tProtein (g)\tTotal fat\tCarbs\tDietary fiber\tsodium_mg\r\nOats\t370\t13\t7\t60\t10\t400\r\n")]
    [InlineData("name,Energy (kJ),protein,fat,carbohydrate,fibre,salt\nOats,1548.08,13,7,60,10,1\n")]
    public void A_table_is_understood_from_its_headers(string text)
    {
        var row = Assert.Single(Rows(File("a.csv", text)));
        Assert.Null(row.Refused);
        Assert.Equal("Oats", row.Food!.Name);
        Assert.Equal((370m, 13m, 7m, 60m, 10m, 1m),
            (row.Food.Per100g.Energy, row.Food.Per100g.Protein, row.Food.Per100g.Fat, row.Food.Per100g.Carbohydrate,
            row.Food.Per100g.Fibre, row.Food.Per100g.Salt));
    }

    [Fact]
    public void Names_in_latin_1_are_read()
    {
        var row = Assert.Single(Rows(File("latin.csv", Encoding.Latin1.GetBytes("name,kcal\nCrème fraîche,340\n"))));
        Assert.Equal("Crème fraîche", row.Food!.Name);
    }

    [Fact]
    public void Figures_per_serving_are_brought_to_100_g_under_the_users_mapping()
    {
        var mapping = new CsvMapping("what", null, null, "ean", "weighs",
            new Dictionary<Nutrient, MappedColumn>
            {
                [Nutrient.Energy] = new("e", ColumnUnit.Kilojoule),
                [Nutrient.Salt] = new("na", ColumnUnit.SodiumGram)
            }, CarbohydrateConvention.WithoutFibre);
        var rows = Rows(File("b.csv", "what,ean,weighs,e,na\nBar,6291041500213,50,418.4,0.2\nNo weight,,,100,1\n"), mapping);
        Assert.Equal((200m, 1m, "06291041500213", CarbohydrateConvention.WithoutFibre),
            (rows[0].Food!.Per100g.Energy, rows[0].Food!.Per100g.Salt, rows[0].Food!.Gtin, rows[0].Food!.Convention));
        Assert.Equal("its serving has no weight in grams", rows[1].Refused);
    }

    [Fact]
    public void Rows_are_refused_with_their_reason_and_doubted_with_theirs()
    {
        var rows = Rows(File("c.csv", """
            name,kcal,protein,fat,carbohydrate
            ,100,1,1,1
            Words,lots,1,1,1
            Nothing,,,,
            Below,100,-1,1,1
            Too much,100,150,1,1
            Wrong energy,900,10,10,10
            Full,380,60,10,60
            Trace,2,tr,<0.1,N
            Short,50
            """));
        Assert.Equal(
            ["it has no name", "“lots” under kcal is not a number", "it has no figures", "protein is below zero",
                "protein is 150 in 100 g, more than can be", null, null, null, null],
            rows.Select(row => row.Refused));
        Assert.Equal(["energy-off"], rows[5].Doubts.Select(doubt => doubt.Code));
        Assert.Contains("parts-over-100", rows[6].Doubts.Select(doubt => doubt.Code));
        Assert.Equal((0m, 0m, null), (rows[7].Food!.Per100g.Protein, rows[7].Food!.Per100g.Fat, rows[7].Food!.Per100g.Carbohydrate));
        Assert.Equal(50, rows[8].Food!.Per100g.Energy);
    }

    [Theory]
    [InlineData("")]
    [InlineData("one column\nonly\n")]
    [InlineData("name,colour\nOats,beige\n")]
    [InlineData("{\"foods\": 3}")]
    [InlineData("{\"FoundationFoods\": [{\"fdcId\": 1, \"description\": \"cut off")]
    public void What_is_no_table_of_foods_gets_a_sentence(string text)
    {
        var path = File("x", text);
        Assert.EndsWith(".", Assert.Throws<UnreadableFileException>(() => Rows(path)).Message);
    }

    [Fact]
    public void A_quote_left_open_in_a_million_letters_is_told_by_its_row()
    {
        var path = File("open.csv", "name,kcal\nOats,370\n\"" + new string('x', 3 << 20));
        var error = Assert.Throws<UnreadableFileException>(() => Rows(path));
        Assert.Contains("row 2", error.Message);
    }

    [Fact]
    public void Bytes_of_chance_end_in_rows_or_a_sentence()
    {
        var chance = new Random(7);
        for (var i = 0; i < 60; i++)
        {
            var bytes = new byte[chance.Next(1, 4000)];
            chance.NextBytes(bytes);
            if (i % 3 == 1) "name,kcal\n"u8.CopyTo(bytes.AsSpan(0, Math.Min(10, bytes.Length)).Length == 10 ? bytes : new byte[10]);
            if (i % 3 == 2) (bytes[0], bytes[^1]) = ((byte)'P', (byte)'K');
            var path = File("chance" + i, bytes);
            try
            {
                Assert.All(Rows(path), row => Assert.True(row.Food is not null || row.Refused is not null));
            }
            catch (UnreadableFileException error)
            {
                Assert.NotEmpty(error.Message);
            }
        }
    }

    // The shape of FoodData Central's download, written from memory of its field descriptions; the figures are made up.
    private static readonly (string Name, string Text)[] Fdc =
    [
        ("set/food.csv",
            "\"fdc_id\",\"data_type\",\"description\",\"food_category_id\",\"publication_date\"\n\"11\",\"sr_legacy_food\",\"Oats, rolled\",\"20\",\"2019-04-01\"\n\"12\",\"sample_food\",\"Oats, sample\",\"20\",\"\"\n\"13\",\"branded_food\",\"BAR\",\"\",\"\"\n\"11\",\"sr_legacy_food\",\"Oats again\",\"20\",\"\"\n"),
        ("set/food_nutrient.csv",
            "\"id\",\"fdc_id\",\"nutrient_id\",\"amount\"\n1,11,1003,13.2\n2,11,1004,6.5\n3,11,1005,67.7\n4,11,1008,379\n5,11,1079,10.1\n6,11,1093,6\n7,11,1162,0\n8,13,2047,400\n9,13,1003,20\n10,99,1003,5\n11,13,1062,1700\n"),
        ("set/food_category.csv", "\"id\",\"code\",\"description\"\n20,\"2000\",\"Cereal Grains and Pasta\"\n"),
        ("set/measure_unit.csv", "\"id\",\"name\"\n1000,cup\n9999,undetermined\n"),
        ("set/food_portion.csv",
            "\"id\",\"fdc_id\",\"seq_num\",\"amount\",\"measure_unit_id\",\"portion_description\",\"modifier\",\"gram_weight\"\n1,11,1,2,1000,,,162\n2,11,2,1,9999,,\"tbsp, level\",5\n"),
        ("set/branded_food.csv",
            "\"fdc_id\",\"brand_owner\",\"gtin_upc\",\"serving_size\",\"serving_size_unit\"\n13,\"someone\",\"6291041500213\",55,\"g\"\n"),
    ];

    [Fact]
    public void A_set_of_csv_files_in_food_data_centrals_shape_is_joined()
    {
        var rows = Rows(Zip("fdc.zip", Fdc));
        var (oats, bar) = (rows.Single(row => row.Food?.Code == "11").Food!, rows.Single(row => row.Food?.Code == "13").Food!);
        Assert.Equal(("Oats, rolled", FoodGroup.Grains, 379m, 13.2m, 10.1m, 0.015m),
            (oats.Name, oats.Group, oats.Per100g.Energy, oats.Per100g.Protein, oats.Per100g.Fibre, oats.Per100g.Salt));
        Assert.Equal("cup=81;tbsp=5", oats.Measures);
        Assert.Equal((400m, "06291041500213", "serving=55"), (bar.Per100g.Energy, bar.Gtin, bar.Measures));
        Assert.Null(bar.Per100g.Fat);
        Assert.Equal(["it is a sample of a food, not a food", "fdc_id 11 is there twice"],
            rows.Where(row => row.Refused is not null).Select(row => row.Refused));
    }

    [Fact]
    public void A_set_once_joined_is_not_joined_again()
    {
        var path = Zip("fdc.zip", Fdc);
        var file = FoodFiles.Open(path);
        List<(long, ImportedFood?, string?)> Read() => [.. file.Rows().Select(row => (row.Row, row.Food, row.Refused))];
        var looked = Read();

        // Of the set only the names are read once more.
        System.IO.File.Copy(Zip("names.zip", [.. Fdc.Where(entry => entry.Name == "set/food.csv")]), path, overwrite: true);
        Assert.Equal(4, looked.Count);
        Assert.Equal(looked, Read());
    }

    [Fact]
    public void Json_in_food_data_centrals_shape_is_read_food_by_food()
    {
        const string Text = """
            {"FoundationFoods": [
              {"fdcId": 21, "description": "Lentils, \"red\" [dry]", "foodCategory": {"description": "Legumes and Legume Products"},
               "foodNutrients": [{"nutrient": {"number": "203", "unitName": "g"}, "amount": 24.1}, {"nutrient": {"number": "208", "unitName": "kcal"}, "amount": 352}, {"nutrient": {"number": "307", "unitName": "mg"}, "amount": 8}],
               "foodPortions": [{"amount": 1.0, "measureUnit": {"name": "cup"}, "gramWeight": 192.0}]},
              {"fdcId": 21, "description": "again"},
              {"fdcId": 22, "description": "Nothing known", "foodNutrients": []},
              {"fdcId": 23, "description": "By factors", "foodNutrients": [{"nutrient": {"number": "958"}, "amount": 100}]}
            ], "other": [1, 2]}
            """;
        foreach (var path in new[] { File("f.json", Text), Zip("f.zip", ("f.json", Text)) })
        {
            var rows = Rows(path);
            Assert.Equal(("Lentils, \"red\" [dry]", FoodGroup.Pulses, 352m, 24.1m, 0.02m, "cup=192"),
                (rows[0].Food!.Name, rows[0].Food!.Group, rows[0].Food!.Per100g.Energy, rows[0].Food!.Per100g.Protein,
                rows[0].Food!.Per100g.Salt, rows[0].Food!.Measures));
            Assert.Equal(["fdcId 21 is there twice", "it has no figures"], rows[1..3].Select(row => row.Refused));
            Assert.Equal(100, rows[3].Food!.Per100g.Energy);
        }
    }

    [Fact]
    public void A_zip_bomb_a_damaged_zip_and_one_of_several_tables_are_refused()
    {
        var bomb = Path.Combine(folder, "bomb.zip");
        using (var zip = ZipFile.Open(bomb, ZipArchiveMode.Create))
        {
            using var entry = zip.CreateEntry("food.csv").Open();
            var zeros = new byte[1 << 20];
            for (var i = 0; i < 64; i++) entry.Write(zeros);
        }

        foreach (var path in new[] { bomb, File("damaged.zip", [(byte)'P', (byte)'K', 3, 4, 9, 9, 9]),
            Zip("two.zip", ("a.csv", "name,kcal\nx,1\n"), ("b.csv", "name,kcal\nx,1\n")) })
            Assert.EndsWith(".", Assert.Throws<UnreadableFileException>(() => FoodFiles.Open(path)).Message);
    }

    [Fact]
    public void A_million_rows_are_read_without_being_kept_and_can_be_stopped()
    {
        var path = Path.Combine(folder, "million.csv");
        using (var writer = new StreamWriter(path))
        {
            writer.WriteLine("name,kcal,protein,fat,carbohydrate");
            for (var i = 0; i < 1_000_000; i++) writer.WriteLine("food,40,1,0,9");
        }

        using var stop = new CancellationTokenSource();
        var count = 0;
        var read = new List<WeakReference>(); // of every thousandth row: nothing else may hold on to it
        var progress = new List<double>();
        Assert.Throws<OperationCanceledException>(() =>
        {
            foreach (var row in FoodFiles.Open(path).Rows(new Told(progress), stop.Token))
            {
                if (++count % 1000 == 1) read.Add(new WeakReference(row));
                if (count == 200_000)
                {
                    GC.Collect();
                    Assert.DoesNotContain(read, row => row.IsAlive);
                    stop.Cancel();
                }
            }
        });
        Assert.Equal(200, read.Count);
        Assert.InRange(count, 200_000, 200_001);
        Assert.InRange(progress[^1], 0.15, 0.3);
    }

    private sealed class Told(List<double> values) : IProgress<double>
    {
        public void Report(double value) => values.Add(value);
    }

    [Fact]
    public async Task The_look_up_device_knows_made_up_products_by_numbers_of_a_shops_own_range()
    {
        Assert.All(SimulatedLookUp.Shelf, product =>
        {
            Assert.True(Gtin.Read(product.Gtin).Succeeded);
            Assert.StartsWith("0020", product.Gtin); // GS1 prefixes 020 to 029: within one shop
            Assert.True(product.Label.Per100g().Succeeded, product.Name);
        });
        var shelf = SimulatedLookUp.Shelf;
        Assert.Same(shelf[2], await new SimulatedLookUp().FindAsync(shelf[2].Gtin));
        Assert.Null(await new SimulatedLookUp().FindAsync("06291041500213"));
        var doubted = shelf.Where(product => product.Label.Doubts(product.Label.Per100g().Value!).Count > 0).ToList();
        Assert.Equal(["Tide pool seaweed crisps"], doubted.Select(product => product.Name));
    }
}
