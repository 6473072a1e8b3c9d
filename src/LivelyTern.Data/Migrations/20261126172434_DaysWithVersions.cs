using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace LivelyTern.Data.Migrations
{
    /// <inheritdoc />
    public partial class DaysWithVersions : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "NeverAnswered",
                table: "PlanItems",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "UndoneId",
                table: "PlanChanges",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "EaterDays",
                columns: table => new
                {
                    EaterId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_EaterDays", x => new { x.EaterId, x.Day });
                    table.ForeignKey(
                        name: "FK_EaterDays_Eaters_EaterId",
                        column: x => x.EaterId,
                        principalTable: "Eaters",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_PlanChanges_At",
                table: "PlanChanges",
                column: "At");

            migrationBuilder.CreateIndex(
                name: "IX_PlanChanges_UndoneId",
                table: "PlanChanges",
                column: "UndoneId",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "EaterDays");

            migrationBuilder.DropIndex(
                name: "IX_PlanChanges_At",
                table: "PlanChanges");

            migrationBuilder.DropIndex(
                name: "IX_PlanChanges_UndoneId",
                table: "PlanChanges");

            migrationBuilder.DropColumn(
                name: "NeverAnswered",
                table: "PlanItems");

            migrationBuilder.DropColumn(
                name: "UndoneId",
                table: "PlanChanges");
        }
    }
}
