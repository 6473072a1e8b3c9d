using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace LivelyTern.Data.Migrations
{
    /// <inheritdoc />
    public partial class ThingsWithALife : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "FoodRecords",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false),
                    Stored = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_FoodRecords", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "BatchLines",
                columns: table => new
                {
                    BatchId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Position = table.Column<int>(type: "INTEGER", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    IsTakenOut = table.Column<bool>(type: "INTEGER", nullable: false),
                    Planned = table.Column<string>(type: "TEXT", nullable: false),
                    ReallyText = table.Column<string>(type: "TEXT", nullable: true),
                    Really = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BatchLines", x => new { x.BatchId, x.Position });
                    table.ForeignKey(
                        name: "FK_BatchLines_Batches_BatchId",
                        column: x => x.BatchId,
                        principalTable: "Batches",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "BoxEvents",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    BoxId = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    Place = table.Column<string>(type: "TEXT", nullable: false),
                    PlacedOn = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    FrozenOn = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    ForId = table.Column<Guid>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BoxEvents", x => x.Id);
                    table.ForeignKey(
                        name: "FK_BoxEvents_Boxes_BoxId",
                        column: x => x.BoxId,
                        principalTable: "Boxes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "BoxParts",
                columns: table => new
                {
                    BoxId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Position = table.Column<int>(type: "INTEGER", nullable: false),
                    BatchId = table.Column<Guid>(type: "TEXT", nullable: true),
                    FoodRecordId = table.Column<long>(type: "INTEGER", nullable: true),
                    Text = table.Column<string>(type: "TEXT", nullable: true),
                    Milligrams = table.Column<long>(type: "INTEGER", nullable: false),
                    Pieces = table.Column<int>(type: "INTEGER", nullable: true),
                    Compartment = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BoxParts", x => new { x.BoxId, x.Position });
                    table.ForeignKey(
                        name: "FK_BoxParts_Batches_BatchId",
                        column: x => x.BatchId,
                        principalTable: "Batches",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_BoxParts_Boxes_BoxId",
                        column: x => x.BoxId,
                        principalTable: "Boxes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_BoxParts_FoodRecords_FoodRecordId",
                        column: x => x.FoodRecordId,
                        principalTable: "FoodRecords",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "IX_BoxEvents_BoxId",
                table: "BoxEvents",
                column: "BoxId");

            migrationBuilder.CreateIndex(
                name: "IX_BoxParts_BatchId",
                table: "BoxParts",
                column: "BatchId");

            migrationBuilder.CreateIndex(
                name: "IX_BoxParts_FoodRecordId",
                table: "BoxParts",
                column: "FoodRecordId");

            // The three that change their shape are built anew beside the old ones; what was in those goes over in TakeOver.ThingsWithALife,
            // in the same transaction, which then puts them in their place.
            migrationBuilder.Sql("""
                CREATE TABLE "NewBatches" (
                    "Id" TEXT NOT NULL CONSTRAINT "PK_Batches" PRIMARY KEY,
                    "RecipeId" TEXT NOT NULL,
                    "RecipeName" TEXT NOT NULL,
                    "Letters" TEXT NOT NULL,
                    "Tint" INTEGER NOT NULL,
                    "State" TEXT NOT NULL,
                    "DiscardedFrom" TEXT NULL,
                    "CookedOn" TEXT NOT NULL,
                    "Portions" INTEGER NOT NULL,
                    "PanMilligrams" INTEGER NULL,
                    "CookedMilligrams" INTEGER NULL,
                    "Yield" TEXT NULL,
                    "Pieces" INTEGER NULL,
                    "Version" INTEGER NOT NULL,
                    CONSTRAINT "FK_Batches_Recipes_RecipeId" FOREIGN KEY ("RecipeId") REFERENCES "Recipes" ("Id") ON DELETE RESTRICT
                );
                CREATE TABLE "NewBoxes" (
                    "Id" TEXT NOT NULL CONSTRAINT "PK_Boxes" PRIMARY KEY,
                    "BatchId" TEXT NOT NULL,
                    "Number" INTEGER NOT NULL,
                    "State" TEXT NOT NULL,
                    "Place" TEXT NOT NULL,
                    "PlacedOn" TEXT NOT NULL,
                    "FrozenOn" TEXT NULL,
                    "ForId" TEXT NULL,
                    "Version" INTEGER NOT NULL,
                    CONSTRAINT "FK_Boxes_Batches_BatchId" FOREIGN KEY ("BatchId") REFERENCES "Batches" ("Id") ON DELETE RESTRICT,
                    CONSTRAINT "FK_Boxes_Eaters_ForId" FOREIGN KEY ("ForId") REFERENCES "Eaters" ("Id") ON DELETE RESTRICT
                );
                CREATE TABLE "NewPlanItems" (
                    "Id" TEXT NOT NULL CONSTRAINT "PK_PlanItems" PRIMARY KEY,
                    "EaterId" TEXT NOT NULL,
                    "Day" TEXT NOT NULL,
                    "Position" INTEGER NOT NULL,
                    "BoxId" TEXT NULL,
                    "BatchId" TEXT NULL,
                    "Milligrams" INTEGER NULL,
                    "Text" TEXT NULL,
                    "FoodRecordId" INTEGER NULL,
                    "FoodGrams" TEXT NULL,
                    "FoodIsTrace" INTEGER NOT NULL,
                    "EatenAt" INTEGER NULL,
                    "Slot" TEXT NULL,
                    "IsLocked" INTEGER NOT NULL,
                    "IsFitted" INTEGER NOT NULL,
                    "GiveOrTake" TEXT NULL,
                    "NeverAnswered" TEXT NULL,
                    CONSTRAINT "FK_PlanItems_Batches_BatchId" FOREIGN KEY ("BatchId") REFERENCES "Batches" ("Id") ON DELETE RESTRICT,
                    CONSTRAINT "FK_PlanItems_Boxes_BoxId" FOREIGN KEY ("BoxId") REFERENCES "Boxes" ("Id") ON DELETE RESTRICT,
                    CONSTRAINT "FK_PlanItems_Eaters_EaterId" FOREIGN KEY ("EaterId") REFERENCES "Eaters" ("Id") ON DELETE RESTRICT,
                    CONSTRAINT "FK_PlanItems_FoodRecords_FoodRecordId" FOREIGN KEY ("FoodRecordId") REFERENCES "FoodRecords" ("Id") ON DELETE RESTRICT
                );
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new System.NotSupportedException("There is no way back from this shape but the copy that was laid beside the file.");
    }
}
