using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace LivelyTern.Data.Migrations
{
    /// <inheritdoc />
    public partial class ShopAndPantry : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Instead",
                table: "Batches",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Aisles",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false),
                    Aisles = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Aisles", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "OwnItems",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    FoodId = table.Column<string>(type: "TEXT", nullable: true),
                    WrittenAt = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_OwnItems", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Pantry",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    FoodId = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Milligrams = table.Column<long>(type: "INTEGER", nullable: true),
                    UseBy = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    IsFirst = table.Column<bool>(type: "INTEGER", nullable: false),
                    CountedAt = table.Column<long>(type: "INTEGER", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Pantry", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "SoldAs",
                columns: table => new
                {
                    FoodId = table.Column<string>(type: "TEXT", nullable: false),
                    Sold = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SoldAs", x => x.FoodId);
                });

            migrationBuilder.CreateTable(
                name: "Ticks",
                columns: table => new
                {
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    IsTicked = table.Column<bool>(type: "INTEGER", nullable: false),
                    Milligrams = table.Column<long>(type: "INTEGER", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Ticks", x => x.Key);
                });

            migrationBuilder.CreateTable(
                name: "PantryUses",
                columns: table => new
                {
                    SourceId = table.Column<Guid>(type: "TEXT", nullable: false),
                    PantryId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Milligrams = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PantryUses", x => new { x.SourceId, x.PantryId });
                    table.ForeignKey(
                        name: "FK_PantryUses_Pantry_PantryId",
                        column: x => x.PantryId,
                        principalTable: "Pantry",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Pantry_FoodId",
                table: "Pantry",
                column: "FoodId");

            migrationBuilder.CreateIndex(
                name: "IX_PantryUses_PantryId",
                table: "PantryUses",
                column: "PantryId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Aisles");

            migrationBuilder.DropTable(
                name: "OwnItems");

            migrationBuilder.DropTable(
                name: "PantryUses");

            migrationBuilder.DropTable(
                name: "SoldAs");

            migrationBuilder.DropTable(
                name: "Ticks");

            migrationBuilder.DropTable(
                name: "Pantry");

            migrationBuilder.DropColumn(
                name: "Instead",
                table: "Batches");
        }
    }
}
