using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace LivelyTern.Data.Migrations
{
    /// <inheritdoc />
    public partial class AimAndPlan : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<decimal>(
                name: "GiveOrTake",
                table: "PlanItems",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "IsFitted",
                table: "PlanItems",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "IsLocked",
                table: "PlanItems",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Slot",
                table: "PlanItems",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Body",
                table: "Eaters",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Ways",
                table: "Eaters",
                type: "TEXT",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "GiveOrTake",
                table: "PlanItems");

            migrationBuilder.DropColumn(
                name: "IsFitted",
                table: "PlanItems");

            migrationBuilder.DropColumn(
                name: "IsLocked",
                table: "PlanItems");

            migrationBuilder.DropColumn(
                name: "Slot",
                table: "PlanItems");

            migrationBuilder.DropColumn(
                name: "Body",
                table: "Eaters");

            migrationBuilder.DropColumn(
                name: "Ways",
                table: "Eaters");
        }
    }
}
