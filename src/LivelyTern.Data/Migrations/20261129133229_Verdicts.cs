using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace LivelyTern.Data.Migrations
{
    /// <inheritdoc />
    public partial class Verdicts : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "RecipeVersion",
                table: "Batches",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Verdicts",
                columns: table => new
                {
                    BatchId = table.Column<Guid>(type: "TEXT", nullable: false),
                    EaterId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Serving = table.Column<string>(type: "TEXT", nullable: false),
                    Taste = table.Column<string>(type: "TEXT", nullable: true),
                    Reheats = table.Column<string>(type: "TEXT", nullable: true),
                    Keeps = table.Column<string>(type: "TEXT", nullable: true),
                    Effort = table.Column<string>(type: "TEXT", nullable: true),
                    Again = table.Column<string>(type: "TEXT", nullable: true),
                    ToChange = table.Column<string>(type: "TEXT", nullable: true),
                    WrittenAt = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Verdicts", x => new { x.BatchId, x.EaterId, x.Serving });
                    table.ForeignKey(
                        name: "FK_Verdicts_Batches_BatchId",
                        column: x => x.BatchId,
                        principalTable: "Batches",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_Verdicts_Eaters_EaterId",
                        column: x => x.EaterId,
                        principalTable: "Eaters",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Verdicts_EaterId",
                table: "Verdicts",
                column: "EaterId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Verdicts");

            migrationBuilder.DropColumn(
                name: "RecipeVersion",
                table: "Batches");
        }
    }
}
