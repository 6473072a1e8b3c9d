using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace LivelyTern.Data.Migrations
{
    /// <inheritdoc />
    public partial class BoxesInParts : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_PlanItems_BoxId",
                table: "PlanItems");

            migrationBuilder.CreateIndex(
                name: "IX_PlanItems_BoxId",
                table: "PlanItems",
                column: "BoxId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_PlanItems_BoxId",
                table: "PlanItems");

            migrationBuilder.CreateIndex(
                name: "IX_PlanItems_BoxId",
                table: "PlanItems",
                column: "BoxId",
                unique: true);
        }
    }
}
