using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace LivelyTern.Data.Migrations
{
    /// <inheritdoc />
    public partial class FoodsAndRecipes : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(
                name: "BaseId",
                table: "Recipes",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Changes",
                table: "Recipes",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "CookedGrams",
                table: "Recipes",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Pan",
                table: "Recipes",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Pieces",
                table: "Recipes",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Steps",
                table: "Recipes",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "VolumeMl",
                table: "Recipes",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "IsTakenOut",
                table: "RecipeLineRow",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Key",
                table: "RecipeLineRow",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<int>(
                name: "Part",
                table: "RecipeLineRow",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<long>(
                name: "ArchivedAt",
                table: "Foods",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "UsedAt",
                table: "Foods",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Version",
                table: "Foods",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.CreateTable(
                name: "FoodChoices",
                columns: table => new
                {
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    FoodId = table.Column<string>(type: "TEXT", nullable: false),
                    ChosenAt = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_FoodChoices", x => x.Key);
                });

            migrationBuilder.CreateTable(
                name: "Libraries",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Source = table.Column<string>(type: "TEXT", nullable: false),
                    ImportedAt = table.Column<long>(type: "INTEGER", nullable: false),
                    IsWhole = table.Column<bool>(type: "INTEGER", nullable: false),
                    Taken = table.Column<long>(type: "INTEGER", nullable: false),
                    Refused = table.Column<long>(type: "INTEGER", nullable: false),
                    Doubtful = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Libraries", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "LibraryFoods",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    LibraryId = table.Column<int>(type: "INTEGER", nullable: false),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Group = table.Column<int>(type: "INTEGER", nullable: false),
                    Convention = table.Column<int>(type: "INTEGER", nullable: false),
                    Energy = table.Column<double>(type: "REAL", nullable: true),
                    Protein = table.Column<double>(type: "REAL", nullable: true),
                    Fat = table.Column<double>(type: "REAL", nullable: true),
                    SaturatedFat = table.Column<double>(type: "REAL", nullable: true),
                    Carbohydrate = table.Column<double>(type: "REAL", nullable: true),
                    Sugars = table.Column<double>(type: "REAL", nullable: true),
                    Fibre = table.Column<double>(type: "REAL", nullable: true),
                    Salt = table.Column<double>(type: "REAL", nullable: true),
                    Polyols = table.Column<double>(type: "REAL", nullable: true),
                    Alcohol = table.Column<double>(type: "REAL", nullable: true),
                    Measures = table.Column<string>(type: "TEXT", nullable: true),
                    Gtin = table.Column<string>(type: "TEXT", nullable: true),
                    IsDoubtful = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LibraryFoods", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "RecipeVersions",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    RecipeId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    SavedAt = table.Column<long>(type: "INTEGER", nullable: false),
                    Written = table.Column<string>(type: "TEXT", nullable: false),
                    Portion = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_RecipeVersions", x => x.Id);
                    table.ForeignKey(
                        name: "FK_RecipeVersions_Recipes_RecipeId",
                        column: x => x.RecipeId,
                        principalTable: "Recipes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_LibraryFoods_Gtin",
                table: "LibraryFoods",
                column: "Gtin",
                filter: "Gtin IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_LibraryFoods_LibraryId",
                table: "LibraryFoods",
                column: "LibraryId");

            migrationBuilder.CreateIndex(
                name: "IX_RecipeVersions_RecipeId_Version",
                table: "RecipeVersions",
                columns: new[] { "RecipeId", "Version" });

            // Lines written before they had keys get one each.
            migrationBuilder.Sql("UPDATE RecipeLineRow SET Key = lower(hex(randomblob(6)));");

            // Names of library foods, word by word; the index holds no text of its own. Words: all of them, each once.
            migrationBuilder.Sql("CREATE VIRTUAL TABLE LibraryNames USING fts5(Name, content='', contentless_delete=1, tokenize='unicode61 remove_diacritics 2', prefix='1 2');");
            migrationBuilder.Sql("CREATE VIRTUAL TABLE LibraryWords USING fts5vocab('LibraryNames', 'row');");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("DROP TABLE LibraryWords;");
            migrationBuilder.Sql("DROP TABLE LibraryNames;");

            migrationBuilder.DropTable(
                name: "FoodChoices");

            migrationBuilder.DropTable(
                name: "Libraries");

            migrationBuilder.DropTable(
                name: "LibraryFoods");

            migrationBuilder.DropTable(
                name: "RecipeVersions");

            migrationBuilder.DropColumn(
                name: "BaseId",
                table: "Recipes");

            migrationBuilder.DropColumn(
                name: "Changes",
                table: "Recipes");

            migrationBuilder.DropColumn(
                name: "CookedGrams",
                table: "Recipes");

            migrationBuilder.DropColumn(
                name: "Pan",
                table: "Recipes");

            migrationBuilder.DropColumn(
                name: "Pieces",
                table: "Recipes");

            migrationBuilder.DropColumn(
                name: "Steps",
                table: "Recipes");

            migrationBuilder.DropColumn(
                name: "VolumeMl",
                table: "Recipes");

            migrationBuilder.DropColumn(
                name: "IsTakenOut",
                table: "RecipeLineRow");

            migrationBuilder.DropColumn(
                name: "Key",
                table: "RecipeLineRow");

            migrationBuilder.DropColumn(
                name: "Part",
                table: "RecipeLineRow");

            migrationBuilder.DropColumn(
                name: "ArchivedAt",
                table: "Foods");

            migrationBuilder.DropColumn(
                name: "UsedAt",
                table: "Foods");

            migrationBuilder.DropColumn(
                name: "Version",
                table: "Foods");
        }
    }
}
