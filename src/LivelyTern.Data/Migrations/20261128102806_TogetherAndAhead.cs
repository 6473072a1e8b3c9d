using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace LivelyTern.Data.Migrations
{
    /// <inheritdoc />
    public partial class TogetherAndAhead : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "IsPutTogether",
                table: "Recipes",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<long>(
                name: "ExpectedMilligrams",
                table: "Batches",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "ForDishes",
                table: "Batches",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<bool>(
                name: "IsPutTogether",
                table: "Batches",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.CreateTable(
                name: "BatchParts",
                columns: table => new
                {
                    DishId = table.Column<Guid>(type: "TEXT", nullable: false),
                    RecipeId = table.Column<Guid>(type: "TEXT", nullable: false),
                    PartId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Milligrams = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BatchParts", x => new { x.DishId, x.RecipeId });
                    table.ForeignKey(
                        name: "FK_BatchParts_Batches_DishId",
                        column: x => x.DishId,
                        principalTable: "Batches",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_BatchParts_Batches_PartId",
                        column: x => x.PartId,
                        principalTable: "Batches",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "DoneAhead",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    BatchId = table.Column<Guid>(type: "TEXT", nullable: false),
                    DoneOn = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Place = table.Column<string>(type: "TEXT", nullable: false),
                    Verb = table.Column<string>(type: "TEXT", nullable: false),
                    FoodId = table.Column<string>(type: "TEXT", nullable: true),
                    What = table.Column<string>(type: "TEXT", nullable: false),
                    Milligrams = table.Column<long>(type: "INTEGER", nullable: false),
                    Step = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_DoneAhead", x => x.Id);
                    table.ForeignKey(
                        name: "FK_DoneAhead_Batches_BatchId",
                        column: x => x.BatchId,
                        principalTable: "Batches",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "IX_BatchParts_PartId",
                table: "BatchParts",
                column: "PartId");

            migrationBuilder.CreateIndex(
                name: "IX_DoneAhead_BatchId",
                table: "DoneAhead",
                column: "BatchId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "BatchParts");

            migrationBuilder.DropTable(
                name: "DoneAhead");

            migrationBuilder.DropColumn(
                name: "IsPutTogether",
                table: "Recipes");

            migrationBuilder.DropColumn(
                name: "ExpectedMilligrams",
                table: "Batches");

            migrationBuilder.DropColumn(
                name: "ForDishes",
                table: "Batches");

            migrationBuilder.DropColumn(
                name: "IsPutTogether",
                table: "Batches");
        }
    }
}
