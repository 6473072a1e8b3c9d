using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace LivelyTern.Data.Migrations
{
    /// <inheritdoc />
    public partial class Labels : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "Serial",
                table: "Batches",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            // Batches of before are numbered in the order they were cooked.
            migrationBuilder.Sql("""
                UPDATE Batches SET Serial = numbered.Place
                FROM (SELECT Id, row_number() OVER (ORDER BY CookedOn, Id) AS Place FROM Batches) AS numbered
                WHERE numbered.Id = Batches.Id;
                """);

            migrationBuilder.CreateTable(
                name: "BoxNotes",
                columns: table => new
                {
                    RecipeId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Heating = table.Column<string>(type: "TEXT", nullable: true),
                    AtEating = table.Column<string>(type: "TEXT", nullable: true),
                    Version = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BoxNotes", x => x.RecipeId);
                    table.ForeignKey(
                        name: "FK_BoxNotes_Recipes_RecipeId",
                        column: x => x.RecipeId,
                        principalTable: "Recipes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Batches_Serial",
                table: "Batches",
                column: "Serial",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "BoxNotes");

            migrationBuilder.DropIndex(
                name: "IX_Batches_Serial",
                table: "Batches");

            migrationBuilder.DropColumn(
                name: "Serial",
                table: "Batches");
        }
    }
}
