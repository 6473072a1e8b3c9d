using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace LivelyTern.Data.Migrations
{
    /// <inheritdoc />
    public partial class AwayGuestsAndHolds : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<decimal>(
                name: "HoldAmount",
                table: "PlanItems",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "HoldMeasure",
                table: "PlanItems",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "IsForGuests",
                table: "PlanItems",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.CreateTable(
                name: "Aways",
                columns: table => new
                {
                    EaterId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Slot = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Aways", x => new { x.EaterId, x.Day, x.Slot });
                    table.ForeignKey(
                        name: "FK_Aways_Eaters_EaterId",
                        column: x => x.EaterId,
                        principalTable: "Eaters",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Aways");

            migrationBuilder.DropColumn(
                name: "HoldAmount",
                table: "PlanItems");

            migrationBuilder.DropColumn(
                name: "HoldMeasure",
                table: "PlanItems");

            migrationBuilder.DropColumn(
                name: "IsForGuests",
                table: "PlanItems");
        }
    }
}
