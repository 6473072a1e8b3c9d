using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace LivelyTern.Data.Migrations
{
    /// <inheritdoc />
    public partial class Containers : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(
                name: "ContainerId",
                table: "Boxes",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "EyeSpread",
                table: "Boxes",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "BoxPutIns",
                columns: table => new
                {
                    BoxId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Position = table.Column<int>(type: "INTEGER", nullable: false),
                    BatchId = table.Column<Guid>(type: "TEXT", nullable: true),
                    FoodRecordId = table.Column<long>(type: "INTEGER", nullable: true),
                    Text = table.Column<string>(type: "TEXT", nullable: true),
                    Milligrams = table.Column<long>(type: "INTEGER", nullable: false),
                    IsTrace = table.Column<bool>(type: "INTEGER", nullable: false),
                    Compartment = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BoxPutIns", x => new { x.BoxId, x.Position });
                    table.ForeignKey(
                        name: "FK_BoxPutIns_Batches_BatchId",
                        column: x => x.BatchId,
                        principalTable: "Batches",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_BoxPutIns_Boxes_BoxId",
                        column: x => x.BoxId,
                        principalTable: "Boxes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_BoxPutIns_FoodRecords_FoodRecordId",
                        column: x => x.FoodRecordId,
                        principalTable: "FoodRecords",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "Containers",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    EmptyMilligrams = table.Column<long>(type: "INTEGER", nullable: true),
                    Compartments = table.Column<string>(type: "TEXT", nullable: false),
                    Down = table.Column<int>(type: "INTEGER", nullable: true),
                    Across = table.Column<int>(type: "INTEGER", nullable: true),
                    Count = table.Column<int>(type: "INTEGER", nullable: true),
                    ArchivedAt = table.Column<long>(type: "INTEGER", nullable: true),
                    Version = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Containers", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "EyeTries",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    CookId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Group = table.Column<string>(type: "TEXT", nullable: true),
                    What = table.Column<string>(type: "TEXT", nullable: false),
                    GuessMilligrams = table.Column<long>(type: "INTEGER", nullable: false),
                    RealMilligrams = table.Column<long>(type: "INTEGER", nullable: false),
                    KcalPerGram = table.Column<decimal>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_EyeTries", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_BoxPutIns_BatchId",
                table: "BoxPutIns",
                column: "BatchId");

            migrationBuilder.CreateIndex(
                name: "IX_BoxPutIns_FoodRecordId",
                table: "BoxPutIns",
                column: "FoodRecordId");

            migrationBuilder.CreateIndex(
                name: "IX_EyeTries_CookId",
                table: "EyeTries",
                column: "CookId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "BoxPutIns");

            migrationBuilder.DropTable(
                name: "Containers");

            migrationBuilder.DropTable(
                name: "EyeTries");

            migrationBuilder.DropColumn(
                name: "ContainerId",
                table: "Boxes");

            migrationBuilder.DropColumn(
                name: "EyeSpread",
                table: "Boxes");
        }
    }
}
