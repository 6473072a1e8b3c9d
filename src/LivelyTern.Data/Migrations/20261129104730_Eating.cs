using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace LivelyTern.Data.Migrations
{
    /// <inheritdoc />
    public partial class Eating : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "KeptMeals",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Place = table.Column<string>(type: "TEXT", nullable: false, collation: "NOCASE"),
                    Name = table.Column<string>(type: "TEXT", nullable: false, collation: "NOCASE"),
                    Item = table.Column<string>(type: "TEXT", nullable: false),
                    UsedAt = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_KeptMeals", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "PlannedDays",
                columns: table => new
                {
                    EaterId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    WrittenAt = table.Column<long>(type: "INTEGER", nullable: false),
                    Planned = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PlannedDays", x => new { x.EaterId, x.Day });
                    table.ForeignKey(
                        name: "FK_PlannedDays_Eaters_EaterId",
                        column: x => x.EaterId,
                        principalTable: "Eaters",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "WeighIns",
                columns: table => new
                {
                    EaterId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Grams = table.Column<int>(type: "INTEGER", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    Unit = table.Column<string>(type: "TEXT", nullable: false),
                    WrittenAt = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_WeighIns", x => new { x.EaterId, x.Day });
                    table.ForeignKey(
                        name: "FK_WeighIns_Eaters_EaterId",
                        column: x => x.EaterId,
                        principalTable: "Eaters",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "WeighedAs",
                columns: table => new
                {
                    RawId = table.Column<string>(type: "TEXT", nullable: false),
                    FoodId = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_WeighedAs", x => x.RawId);
                });

            migrationBuilder.CreateIndex(
                name: "IX_KeptMeals_Place_Name",
                table: "KeptMeals",
                columns: new[] { "Place", "Name" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "KeptMeals");

            migrationBuilder.DropTable(
                name: "PlannedDays");

            migrationBuilder.DropTable(
                name: "WeighIns");

            migrationBuilder.DropTable(
                name: "WeighedAs");
        }
    }
}
